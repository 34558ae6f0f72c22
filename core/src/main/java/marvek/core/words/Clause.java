package marvek.core.words;

import marvek.core.said.Said;

/**
 * Something that is said of a place.
 *
 * @param past metres past the apex
 * @param first the same where the apex has not been named yet
 */
record Clause(double past, Said words, Said first) {
  Clause(double past, Said words) {
    this(past, words, words);
  }
}
