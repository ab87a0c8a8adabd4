import { CodeTree } from '../codes/tree.ts';

/** A small scheme: a branch with several below it, one with only children, and one that has none. For tests only. */
export const smallTree = () =>
  new CodeTree('nace-2.1', [
    { code: 'C', level: 1, parent: '', title: 'Manufacturing' },
    { code: '16', level: 2, parent: 'C', title: 'Wood' },
    { code: '16.1', level: 3, parent: '16', title: 'Sawmilling' },
    { code: '16.10', level: 4, parent: '16.1', title: 'Sawmilling' },
    { code: '25', level: 2, parent: 'C', title: 'Metal' },
    { code: '25.5', level: 3, parent: '25', title: 'Treatment' },
    { code: '25.51', level: 4, parent: '25.5', title: 'Coating' },
    { code: '25.53', level: 4, parent: '25.5', title: 'Machining' },
    { code: 'F', level: 1, parent: '', title: 'Construction' },
  ]);
