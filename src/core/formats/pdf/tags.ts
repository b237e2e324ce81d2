import {
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFOperator,
  PDFOperatorNames,
  type PDFRef,
  type PDFDict,
  type PDFDocument,
  type PDFPage,
} from '@cantoo/pdf-lib';

/** What a part of a page is (ISO 32000-1, 14.8.4). */
export type TagKind = 'Document' | 'Sect' | 'H1' | 'H2' | 'P' | 'Table' | 'TR' | 'TH' | 'TD' | 'L' | 'LI';

/** A part of a document as it is read. */
export interface Tag {
  readonly ref: PDFRef;
  readonly dict: PDFDict;
  readonly kids: (PDFRef | PDFDict)[];
}

/** How a document is read aloud, beside how it looks (ISO 32000-1, 14.7 and 14.8): parts within parts, each with what is drawn of it. */
export class Tags {
  private readonly rootRef: PDFRef;
  private readonly all: Tag[] = [];
  /** By page: the part of each marked piece. */
  private readonly owners = new Map<PDFPage, PDFRef[]>();
  readonly document: Tag;

  constructor(private readonly pdf: PDFDocument) {
    this.rootRef = pdf.context.nextRef();
    this.document = this.add('Document', null);
  }

  /** Parts that there are by now. */
  get count(): number {
    return this.all.length;
  }

  /** A part within another, behind what that has already. */
  add(kind: TagKind, within: Tag | null): Tag {
    const { context } = this.pdf;
    const dict = context.obj({ Type: 'StructElem', S: kind, P: within?.ref ?? this.rootRef });
    if (kind === 'TH') dict.set(PDFName.of('A'), context.obj({ O: 'Table', Scope: 'Column' }));
    const tag: Tag = { ref: context.register(dict), dict, kids: [] };
    within?.kids.push(tag.ref);
    this.all.push(tag);
    return tag;
  }

  /** Draws something of a part. `spoken`: what it says, where that is not what is drawn from left to right. */
  mark(page: PDFPage, tag: Tag, draw: () => void, spoken?: string): void {
    const { context } = this.pdf;
    const owners = this.owners.get(page) ?? [];
    this.owners.set(page, owners);
    const id = owners.length;
    owners.push(tag.ref);
    tag.kids.push(context.obj({ Type: 'MCR', Pg: page.ref, MCID: id }));
    const says = spoken === undefined ? '' : ` /ActualText ${PDFHexString.fromText(spoken).toString()}`;
    this.marked(page, String(tag.dict.get(PDFName.of('S'))), `<</MCID ${id}${says}>>`, draw);
  }

  /** Draws what nobody has to hear: rules, and what stands again on each page. */
  artifact(page: PDFPage, draw: () => void): void {
    page.pushOperators(PDFOperator.of(PDFOperatorNames.BeginMarkedContent, [PDFName.of('Artifact')]));
    draw();
    page.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
  }

  private marked(page: PDFPage, kind: string, properties: string, draw: () => void): void {
    page.pushOperators(PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, [kind, properties]));
    draw();
    page.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
  }

  /** Writes the parts into the document, once all is drawn. */
  finish(): void {
    const { context, catalog } = this.pdf;
    for (const { dict, kids } of this.all) if (kids.length > 0) dict.set(PDFName.of('K'), context.obj(kids));
    const numbers = [...this.owners].flatMap(([page, refs], i) => {
      page.node.set(PDFName.of('StructParents'), PDFNumber.of(i));
      page.node.set(PDFName.of('Tabs'), PDFName.of('S'));
      return [PDFNumber.of(i), context.register(context.obj(refs))];
    });
    const tree = context.register(context.obj({ Nums: numbers }));
    context.assign(
      this.rootRef,
      context.obj({
        Type: 'StructTreeRoot',
        K: [this.document.ref],
        ParentTree: tree,
        ParentTreeNextKey: this.owners.size,
      }),
    );
    catalog.set(PDFName.of('StructTreeRoot'), this.rootRef);
    catalog.set(PDFName.of('MarkInfo'), context.obj({ Marked: true }));
  }
}
