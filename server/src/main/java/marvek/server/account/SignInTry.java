package marvek.server.account;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A try to sign in, kept until it succeeds, so that every server process counts the same. */
@Entity
@Table(name = "sign_in_failure")
class SignInTry {
  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  private @Nullable Long id;

  private String email;
  private String address;
  private Instant at;

  @SuppressWarnings("NullAway.Init")
  protected SignInTry() {}

  SignInTry(String email, String address, Instant at) {
    this.email = email;
    this.address = address;
    this.at = at;
  }

  @Nullable Long id() {
    return id;
  }

  String email() {
    return email;
  }

  String address() {
    return address;
  }

  Instant at() {
    return at;
  }
}
