/**
 * What stands and lies along a road: kerbs, zones, limits, places; their check, their files, and
 * what they do to the ground under a line. Start with {@link marvek.core.survey.Things}.
 */
package marvek.core.survey;
