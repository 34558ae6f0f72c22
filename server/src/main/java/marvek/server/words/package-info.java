/**
 * How the server speaks to a person: {@link marvek.server.words.Speakers} knows their units and
 * names, and everything that core says is put into words as it is written out.
 */
package marvek.server.words;
