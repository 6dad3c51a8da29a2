export default async function setup() {}
