// The library that checks structures also speaks to servers, and wants a WebSocket to be there when it is loaded; none is used.
globalThis.WebSocket ??= class {} as unknown as typeof WebSocket;
