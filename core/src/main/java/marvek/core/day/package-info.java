/**
 * What a day is like and which day laps were driven on: the surface of the road ({@link
 * marvek.core.lap.Surface}) and the day that fits what laps use of the grip ({@link
 * marvek.core.day.DayFit}). What a day does to a vehicle is reckoned elsewhere, in {@code lap} and
 * {@code survey}.
 */
package marvek.core.day;
