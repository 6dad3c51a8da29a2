import { createRequire } from 'node:module';

/** What a piece of a paper is to a reading program: a heading, a paragraph, or an ornament that is not read. */
export type PdfTag = 'H1' | 'H2' | 'H3' | 'P' | 'Artifact';

interface Inline {
  readonly text: string;
  readonly tag?: PdfTag;
}

interface LineOfText {
  readonly inlines: readonly Inline[];
  readonly lastLineInParagraph?: boolean;
}

interface Picture {
  /** Said in place of the picture; one without is an ornament. */
  readonly alt?: string;
}

interface Structure {
  add(child: unknown): Structure;
  end(): void;
}

/** As much of the document that is written as is used here. */
interface Written {
  readonly options: { readonly tagged?: boolean };
  markContent(tag: string, options?: object): void;
  markStructureContent(tag: string): unknown;
  endMarkedContent(): void;
  struct(tag: string, options?: object): Structure;
  addStructure(structure: Structure): void;
}

interface Renderer {
  readonly pdfDocument: Written;
  whole?: Structure;
  open?: { readonly tag: PdfTag; readonly structure: Structure } | undefined;
  renderPages: (this: Renderer, pages: unknown) => void;
  renderLine: (this: Renderer, line: LineOfText, x: number, y: number) => void;
  renderVector: (this: Renderer, vector: unknown) => void;
  renderSVG: (this: Renderer, svg: Picture) => void;
}

const require = createRequire(import.meta.url);

/** What stands outside the text: drawn, and passed over by who has it read. */
function ornament(document: Written, draw: () => void): void {
  document.markContent('Artifact', { type: 'Layout' });
  draw();
  document.endMarkedContent();
}

function within(renderer: Renderer, tag: string, options: object): Structure {
  const structure = renderer.pdfDocument.struct(tag, options);
  renderer.whole?.add(structure);
  return structure;
}

/** Ends the paragraph that is open, so that the next text begins one of its own. */
function close(renderer: Renderer): void {
  renderer.open?.structure.end();
  renderer.open = undefined;
}

/** A line of what is read: on in the paragraph that is open, or the first of one of its own. */
function read(renderer: Renderer, tag: PdfTag, draw: () => void): void {
  const { pdfDocument } = renderer;
  if (renderer.open?.tag !== tag) close(renderer);
  renderer.open ??= { tag, structure: within(renderer, tag, {}) };
  renderer.open.structure.add(pdfDocument.markStructureContent(tag));
  draw();
  pdfDocument.endMarkedContent();
}

function picture(renderer: Renderer, alt: string, draw: () => void): void {
  close(renderer);
  const figure = within(renderer, 'Figure', { alt });
  figure.add(renderer.pdfDocument.markStructureContent('Figure'));
  draw();
  renderer.pdfDocument.endMarkedContent();
  figure.end();
}

let taught = false;

/**
 * Teaches the PDF library to write a paper with its structure: text as headings and paragraphs in the order they were laid
 * out, pictures with their words, rules and boxes as ornament. It writes none of it by itself; documents with `tagged: true`
 * get it, the others stay as they were.
 */
export function teachTags(): void {
  if (taught) return;
  taught = true;
  const { default: Library } = require('pdfmake/js/Renderer.js') as { default: { prototype: Renderer } };
  const { prototype } = Library;
  const { renderPages, renderLine, renderVector, renderSVG } = prototype;
  prototype.renderPages = function (pages) {
    const { pdfDocument } = this;
    if (pdfDocument.options.tagged !== true) {
      renderPages.call(this, pages);
      return;
    }
    this.whole = pdfDocument.struct('Document');
    pdfDocument.addStructure(this.whole);
    renderPages.call(this, pages);
    close(this);
    this.whole.end();
  };
  prototype.renderLine = function (line, x, y) {
    const draw = () => renderLine.call(this, line, x, y);
    const tag = line.inlines.find((i) => i.tag !== undefined)?.tag ?? 'P';
    if (this.whole === undefined) draw();
    else if (tag === 'Artifact' || line.inlines.every((i) => i.text.trim() === ''))
      ornament(this.pdfDocument, draw);
    else read(this, tag, draw);
    if (line.lastLineInParagraph === true) close(this);
  };
  prototype.renderVector = function (vector) {
    const draw = () => renderVector.call(this, vector);
    if (this.whole === undefined) draw();
    else ornament(this.pdfDocument, draw);
  };
  prototype.renderSVG = function (svg) {
    const draw = () => renderSVG.call(this, svg);
    if (this.whole === undefined) draw();
    else if (svg.alt === undefined) ornament(this.pdfDocument, draw);
    else picture(this, svg.alt, draw);
  };
}
