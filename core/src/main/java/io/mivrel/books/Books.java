package io.mivrel.books;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The reference data of one company. Immutable; look-ups by code take constant time and return {@code null} for an
 * unknown code, since they stand on the hot path.
 */
public final class Books {
    private final String company;
    private final Currency currency;
    private final Map<String, Account> accounts;
    private final Map<String, TaxCode> taxCodes;
    private final Map<String, Party> parties;
    private final List<Period> periods;

    private Books(Builder builder) {
        this.company = builder.company;
        this.currency = builder.currency;
        this.accounts = new LinkedHashMap<>(builder.accounts);
        this.taxCodes = new LinkedHashMap<>(builder.taxCodes);
        this.parties = new LinkedHashMap<>(builder.parties);
        this.periods = List.copyOf(builder.periods);
    }

    public static Builder named(String company, Currency currency) {
        return new Builder(company, currency);
    }

    public String company() {
        return company;
    }

    /** The home currency; every amount is in its minor units. */
    public Currency currency() {
        return currency;
    }

    public @Nullable Account account(@Nullable String code) {
        return accounts.get(code);
    }

    public @Nullable TaxCode taxCode(@Nullable String code) {
        return taxCodes.get(code);
    }

    public @Nullable Party party(@Nullable String code) {
        return parties.get(code);
    }

    public Collection<Account> accounts() {
        return accounts.values();
    }

    public Collection<String> accountCodes() {
        return accounts.keySet();
    }

    public Collection<String> taxCodeCodes() {
        return taxCodes.keySet();
    }

    public Collection<String> partyCodes() {
        return parties.keySet();
    }

    /** Empty when the books keep no periods; then no date is refused. */
    public List<Period> periods() {
        return periods;
    }

    /** The period of a date, if it lies in one. */
    public Optional<Period> period(LocalDate date) {
        return periods.stream().filter(p -> p.contains(date)).findFirst();
    }

    /** The one account with this use, such as the control account of the customers, if the chart has it. */
    public Optional<Account> accountFor(AccountUse use) {
        return accounts.values().stream().filter(a -> a.use() == use).findFirst();
    }

    /** Collects books; later entries with the same code replace earlier ones, so check for repeats before. */
    public static final class Builder {
        private final String company;
        private final Currency currency;
        private final Map<String, Account> accounts = new LinkedHashMap<>();
        private final Map<String, TaxCode> taxCodes = new LinkedHashMap<>();
        private final Map<String, Party> parties = new LinkedHashMap<>();
        private final List<Period> periods = new ArrayList<>();

        private Builder(String company, Currency currency) {
            this.company = Objects.requireNonNull(company);
            this.currency = Objects.requireNonNull(currency);
        }

        public Builder account(Account account) {
            accounts.put(account.code(), account);
            return this;
        }

        /** An open account for general use. */
        public Builder account(String code, String name, AccountType type) {
            return account(new Account(code, name, type, AccountUse.GENERAL, AccountStatus.OPEN, null));
        }

        public Builder account(String code, String name, AccountType type, AccountUse use, AccountStatus status) {
            return account(new Account(code, name, type, use, status, null));
        }

        public Builder taxCode(TaxCode taxCode) {
            taxCodes.put(taxCode.code(), taxCode);
            return this;
        }

        public Builder party(Party party) {
            parties.put(party.code(), party);
            return this;
        }

        public Builder period(Period period) {
            periods.add(period);
            return this;
        }

        public Books build() {
            return new Books(this);
        }
    }
}
