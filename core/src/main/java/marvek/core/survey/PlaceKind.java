package marvek.core.survey;

/** What a place is for. */
public enum PlaceKind {
  PIT_ENTRY,
  PIT_EXIT,
  MARSHAL_POST,
  PASS,
  DEFEND,
  INSTRUMENTS
}
