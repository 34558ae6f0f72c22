package marvek.core.session;

/** What a session on the track is for. */
public enum SessionKind {
  TEST,
  PRACTICE,
  QUALIFYING,
  RACE,
  COACHING
}
