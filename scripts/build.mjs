import { ensureInstalled } from './lib/install.mjs';
import { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } from './lib/build.mjs';

ensureInstalled();
ensurePackagesBuilt();
ensureServerBuilt();
ensureWebBuilt();
