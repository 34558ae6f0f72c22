/**
 * Habits by which time is lost, a class each: {@link marvek.core.debrief.habits.Habit} says what
 * one is, {@link marvek.core.debrief.habits.Look} what it may look at, {@link
 * marvek.core.debrief.habits.Habits} gathers them. Adding one is a class here, a test, and its
 * words.
 */
package marvek.core.debrief.habits;
