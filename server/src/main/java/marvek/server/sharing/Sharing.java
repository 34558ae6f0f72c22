package marvek.server.sharing;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import marvek.server.account.Account;
import marvek.server.account.Accounts;
import marvek.server.problem.Problem;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who besides its owner may see a reference. */
@Service
public class Sharing {
  private static final int MOST = 50;

  private final Shares shares;
  private final Accounts accounts;
  private final Clock clock;

  Sharing(Shares shares, Accounts accounts, Clock clock) {
    this.shares = shares;
    this.accounts = accounts;
    this.clock = clock;
  }

  /** The role that was given to somebody, if any. */
  @Transactional(readOnly = true)
  public Optional<Role> given(UUID reference, UUID person) {
    return shares.findByReferenceIdAndPersonId(reference, person).map(Share::role);
  }

  @Transactional(readOnly = true)
  public List<SharedWith> people(UUID owner, UUID reference) {
    return shares.people(owner, reference);
  }

  /** Opens a reference of the owner's to somebody, or changes their role. */
  @Transactional
  public void open(UUID owner, UUID reference, String email, Role role) {
    if (role == Role.OWNER) {
      throw Problem.bad("A reference has one owner.", "role", "Choose coach or viewer.");
    }
    Account person =
        accounts
            .findByEmail(email.strip().toLowerCase(Locale.ROOT))
            .orElseThrow(
                () ->
                    Problem.bad(
                        "Nobody here has the address " + email.strip() + ".",
                        "email",
                        "Ask them for the address that they sign in with."));
    if (person.id().equals(owner)) {
      throw Problem.bad("This is your own address.", "email", "Give that of somebody else.");
    }
    Optional<Share> present = shares.findByReferenceIdAndPersonId(reference, person.id());
    if (present.isPresent()) {
      present.get().become(role);
      return;
    }
    if (shares.people(owner, reference).size() >= MOST) {
      throw Problem.bad(
          "It is open to " + MOST + " people already.", "email", "Close it to somebody first.");
    }
    shares.save(new Share(owner, reference, person.id(), role, clock.instant()));
  }

  /** Closes a reference of the owner's to somebody. */
  @Transactional
  public void close(UUID owner, UUID reference, UUID person) {
    if (shares.deleteByReferenceIdAndOwnerIdAndPersonId(reference, owner, person) == 0) {
      throw Problem.notFound("It is not open to that person.");
    }
  }
}
