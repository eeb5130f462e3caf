import type { Rule } from 'eslint';

export declare const floors: readonly string[];
export declare const floorsRule: Rule.RuleModule;
