/**
 * Things that a driver looks for, how precisely each can be found, and how a place is tied to one.
 * Start with {@link marvek.core.marker.MarkerJudge}.
 */
package marvek.core.marker;
