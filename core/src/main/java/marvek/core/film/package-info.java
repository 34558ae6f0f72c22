/**
 * What the pictures of a film tell of the road: with two stills of a lap it is known where a thing
 * stands. The film itself is never here. Start with {@link marvek.core.film.Stills}.
 */
package marvek.core.film;
