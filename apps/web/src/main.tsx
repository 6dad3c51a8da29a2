import './app/tokens.css';
import { readLanguage } from './parts/language.js';

// First of all: every other part says its words as it is read.
void readLanguage().then(() => import('./app/start.js'));
