/**
 * Words, made last: {@link marvek.core.words.Speaker} says what rules answer with, from one {@link
 * marvek.core.words.Catalogue}, in the units and names that a driver chose. The sentence of a
 * corner and the comparison of two contents stand here too.
 */
package marvek.core.words;
