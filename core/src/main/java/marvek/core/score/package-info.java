/**
 * What a driver does in a corner, as a sequence of actions in driving order, and how each of their
 * places is found again on the road. Nothing is computed here: where a cue is on the road and what
 * an action costs is asked of {@code plan}. Start with {@link marvek.core.score.Action} and {@link
 * marvek.core.score.Cue}.
 */
package marvek.core.score;
