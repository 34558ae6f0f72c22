package marvek.server.account;

import java.time.Instant;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.transaction.annotation.Transactional;

interface SignInTries extends JpaRepository<SignInTry, Long> {
  long countByEmailAndAddressAndAtAfter(String email, String address, Instant since);

  long countByAddressAndAtAfter(String address, Instant since);

  long countByEmailAndAtAfter(String email, Instant since);

  @Transactional
  void deleteByEmailAndAddress(String email, String address);

  @Transactional
  void deleteByAtBefore(Instant then);

  @Query(
      nativeQuery = true,
      value =
          "select exists (select 1 from known_place where owner_id = :account"
              + " and address = :address and at > :since)")
  boolean known(UUID account, String address, Instant since);

  @Transactional
  @Modifying
  @Query(
      nativeQuery = true,
      value =
          "insert into known_place (owner_id, address, at) values (:account, :address, :now)"
              + " on conflict (owner_id, address) do update set at = excluded.at")
  void know(UUID account, String address, Instant now);

  @Query(
      nativeQuery = true,
      value = "select count(*) from sign_up where address = :address and at > :since")
  long signUps(String address, Instant since);

  @Query(nativeQuery = true, value = "select count(*) from sign_up where at > :since")
  long signUps(Instant since);

  @Transactional
  @Modifying
  @Query(nativeQuery = true, value = "insert into sign_up (address, at) values (:address, :now)")
  void signedUp(String address, Instant now);

  @Transactional
  @Modifying
  @Query(nativeQuery = true, value = "delete from sign_up where at < :then")
  void forgetSignUps(Instant then);

  @Transactional
  @Modifying
  @Query(nativeQuery = true, value = "delete from one_time_link where expires_at < :then")
  void forgetLinks(Instant then);
}
