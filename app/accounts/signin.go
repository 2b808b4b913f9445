package accounts

import (
	"cmp"
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"net/netip"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store/accounts"
	"frugalheron/store/pg"
)

// Failed sign-ins allowed within the window, for one login and for one address. A browser from which somebody has
// signed in before is counted by itself, so that nobody is locked out by what strangers try.
const (
	failureWindow      = 15 * time.Minute
	failuresPerLogin   = 5
	failuresPerAddress = 30
	failuresPerBrowser = 10
)

// How long a browser is known, and how many of an account are.
const (
	BrowserKnown  = 180 * 24 * time.Hour
	browsersKnown = 20
)

// ErrSignIn is returned for a login and password that do not belong together. It does not say
// which of them is wrong.
var ErrSignIn = errors.New("login or password is wrong")

// TooMany is returned when sign-in is closed for a while after failures.
type TooMany struct{ RetryIn time.Duration }

// Error says how long to wait.
func (e *TooMany) Error() string {
	return fmt.Sprintf("too many failed sign-ins; try again in %d minutes", int(e.RetryIn/time.Minute)+1)
}

// Caller is from where somebody signs in.
type Caller struct {
	Address string
	Browser string // what a browser shows from which somebody signed in before; empty for a stranger
}

// SignedIn is an account somebody signed in to, and what its browser shows the next time.
type SignedIn struct {
	Account AccountView
	Browser string
}

// SignIn checks a login and its password. Attempts are counted before the password is looked at; past the limit
// the answer is *TooMany.
func (s *Service) SignIn(ctx context.Context, login, password string, from Caller) (SignedIn, error) {
	login = strings.TrimSpace(login)
	account, err := accounts.AccountByLogin(ctx, s.kernel.Reader(ctx), login)
	if err != nil && !errors.Is(err, action.ErrNotFound) {
		return SignedIn{}, err
	}
	byLogin := "login " + strings.ToLower(login)
	limits := []accounts.SignInLimit{{Subject: byLogin, Most: failuresPerLogin},
		{Subject: "address " + networkOf(from.Address), Most: failuresPerAddress}}
	isKnown, isShared, err := accounts.KnownBrowser(ctx, s.kernel.Reader(ctx), account.ID, hashOf(from.Browser),
		BrowserKnown)
	if err != nil {
		return SignedIn{}, err
	}
	switch {
	case isKnown:
		limits = []accounts.SignInLimit{{Subject: "browser " + hashOf(from.Browser), Most: failuresPerBrowser}}
	case !isShared:
		from.Browser = rand.Text() // never one that somebody brought along
	}
	if err := s.prove(ctx, account, password, limits); err != nil {
		return SignedIn{}, err
	}
	err = pg.InTx(ctx, s.kernel.DB, func(tx *sqlx.Tx) error {
		if !isKnown {
			if err := accounts.ClearSignInFailures(ctx, tx, byLogin); err != nil {
				return err
			}
		}
		return accounts.KnowBrowser(ctx, tx, account.ID, hashOf(from.Browser), browsersKnown)
	})
	return SignedIn{viewOf(account), from.Browser}, err
}

// prove looks whether a password is an account's; the zero account has none. The attempt is counted first.
func (s *Service) prove(ctx context.Context, account accounts.Account, password string,
	limits []accounts.SignInLimit) error {
	// Everybody counts in the same order, so that two who share a subject do not wait for each other.
	slices.SortFunc(limits, func(a, b accounts.SignInLimit) int { return cmp.Compare(a.Subject, b.Subject) })
	var attempts []int64
	var clearIn time.Duration
	err := pg.InTx(ctx, s.kernel.DB, func(tx *sqlx.Tx) (err error) {
		attempts, clearIn, err = accounts.CountSignIn(ctx, tx, limits, failureWindow)
		return err
	})
	if err != nil {
		return err
	}
	if attempts == nil {
		return &TooMany{RetryIn: clearIn}
	}
	canSignIn := account.ID != 0 && !account.Disabled && account.PasswordHash != ""
	match := false
	err = s.hashInTurn(ctx, func() error {
		hash := account.PasswordHash
		if !canSignIn {
			// As much work as for a login that exists, so that time does not tell which do.
			hash = nobodysHash()
		}
		match, err = argon2id.ComparePasswordAndHash(password, hash)
		return err
	})
	if err == nil && !(match && canSignIn) {
		return ErrSignIn
	}
	// It did not fail, or nobody has looked: neither counts.
	return errors.Join(err, accounts.ForgetSignIns(ctx, s.kernel.Reader(ctx), attempts))
}

// networkOf is by what failures of an address are counted: of IPv6, whoever has one address has all of its network.
func networkOf(address string) string {
	ip, err := netip.ParseAddr(address)
	if err != nil {
		return "unknown"
	}
	if ip = ip.Unmap(); ip.Is6() {
		network, err := ip.Prefix(64)
		if err == nil {
			return network.String()
		}
	}
	return ip.String()
}

// nobodysHash is the hash of a password that nobody has.
var nobodysHash = sync.OnceValue(func() string {
	hash, err := argon2id.CreateHash(rand.Text(), hashing)
	if err != nil {
		panic(err) // only without a source of randomness, where nothing else works either
	}
	return hash
})
