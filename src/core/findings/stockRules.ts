/** The rule that the part lies in its stock: told on the Stock step, and the cause of much that is remarked of setups. */
export const partInStock = "outside-stock";
