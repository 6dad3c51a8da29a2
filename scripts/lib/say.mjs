/** Progress for the person at the terminal; never on stdout of a command whose output is data. */
export const say = (text) => process.stderr.write(`${text}\n`);
