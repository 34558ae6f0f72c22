package marvek.server.account;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import marvek.core.units.Display;
import org.jspecify.annotations.Nullable;

/** A person who signs in. */
@Entity
public class Account {
  @Id private UUID id;
  private String email;
  private String name;
  private String password;

  @Enumerated(EnumType.STRING)
  private Display.Speed speedUnit = Display.Speed.KMH;

  @Enumerated(EnumType.STRING)
  private Display.Length lengthUnit = Display.Length.M;

  @Enumerated(EnumType.STRING)
  private Theme theme = Theme.PAPER;

  private Instant createdAt;
  private @Nullable Instant leavesAt;

  @Enumerated(EnumType.STRING)
  private CornerWords cornerWords = CornerWords.NUMBERS;

  /** What corners are called. */
  public enum CornerWords {
    NUMBERS,
    NAMES,
    BOTH
  }

  /** How the interface looks. */
  public enum Theme {
    PAPER,
    DUSK
  }

  @SuppressWarnings("NullAway.Init")
  protected Account() {}

  Account(String email, String name, String password, Instant now) {
    this.id = UUID.randomUUID();
    this.email = email;
    this.name = name;
    this.password = password;
    this.createdAt = now;
  }

  public UUID id() {
    return id;
  }

  public String email() {
    return email;
  }

  public String name() {
    return name;
  }

  String password() {
    return password;
  }

  void take(String hash) {
    password = hash;
  }

  /** When this account is deleted for good, if its owner has asked for that. */
  @Nullable Instant leavesAt() {
    return leavesAt;
  }

  void leave(@Nullable Instant at) {
    leavesAt = at;
  }

  public Theme theme() {
    return theme;
  }

  public Instant createdAt() {
    return createdAt;
  }

  /** Units that this person reads. */
  public Display display() {
    return new Display(speedUnit, lengthUnit);
  }

  public CornerWords cornerWords() {
    return cornerWords;
  }

  void prefer(Display display, Theme look, CornerWords words) {
    cornerWords = words;
    speedUnit = display.speed();
    lengthUnit = display.length();
    theme = look;
  }
}
