// npm run clinic -- --name "Millbrook Feet" --phone "01632 960 111" --emergency 999 --locale en-GB --time-zone Europe/London \
//   --lead "Ada Quill" --email ada@millbrook.example: a clinic of one's own, and the link by which its lead signs in first.
import { runWithDatabase } from './lib/withDatabase.mjs';

await runWithDatabase('makeClinic.js', process.argv.slice(2));
