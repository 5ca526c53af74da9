import { NumberSyntaxError, readExpression, type Node } from "./syntax";

/** A number's text as its tree, what is said of its source left off; null where it cannot be read. */
function treeOf(text: string): Node | null {
  const bare = text.replace(/!$|\{[^{}]*\}$/, "").trim();
  try {
    const { node, end } = readExpression(bare, 0, true);
    return end === bare.length ? node : null;
  } catch (e) {
    if (e instanceof NumberSyntaxError) return null;
    throw e;
  }
}

function balloonsIn(node: Node): number[] {
  switch (node.kind) {
    case "balloon":
      return [node.number];
    case "unary":
    case "unit":
      return balloonsIn(node.of);
    case "binary":
      return [...balloonsIn(node.left), ...balloonsIn(node.right)];
    case "call":
      return node.args.flatMap(balloonsIn);
    case "literal":
    case "name":
      return [];
  }
}

/** The balloons that a number's text cites itself, in the order they stand there; none where it cannot be read. */
export function citedIn(text: string): number[] {
  const tree = treeOf(text);
  return tree ? balloonsIn(tree) : [];
}

/** The balloon that a number's text is, and nothing besides; null for any other text. */
export function balloonAlone(text: string): number | null {
  const tree = treeOf(text);
  return tree?.kind === "balloon" ? tree.number : null;
}
