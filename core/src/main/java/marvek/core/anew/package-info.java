/**
 * What becomes of a reference when something under it changes: the line computed anew, corners
 * split or merged, points that a newer road puts in doubt, ties that moved. Start with {@link
 * marvek.core.anew.Recomputed}.
 */
package marvek.core.anew;
