/**
 * What the user's input cannot be taken for, told in a sentence that says what is wrong and what to do. The only error
 * whose message is ever shown: a native error is a fault of the program, and its words mean nothing to the user.
 * @example throw new Refusal('The sheet is empty. Paste its rows, or choose its file.');
 */
export class Refusal extends Error {}
