// What a page needs to speak a language, without the rules of what is sent.
export { clinicianTongueOf, type LanguageView, tongueOf } from './tongue.js';
