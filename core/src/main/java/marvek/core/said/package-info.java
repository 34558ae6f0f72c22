/**
 * What a rule has to say, before it is words: a key with typed values. Every room answers with
 * {@link marvek.core.said.Said}; words are made of it last, in {@code core.words}, from one
 * catalogue and in the driver's units. No rule reads a sentence.
 */
package marvek.core.said;
