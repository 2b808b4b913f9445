package accounts

import (
	"context"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
	"errors"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/jmoiron/sqlx"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/store/accounts"
	"frugalheron/web/httpx"
)

// What a session remembers beside the account, so that its owner can tell it from others.
const (
	startedKey = "started"
	addressKey = "address"
	agentKey   = "agent"
)

const accountKey = "account"

// sessionLifetime is how long a session lasts. There is no time-out for idle ones: it would write
// the session at every request, and a request under way while somebody signs out would bring the
// session back.
const sessionLifetime = 14 * 24 * time.Hour

// Sessions are where accounts are signed in.
type Sessions struct {
	manager *scs.SessionManager
	kept    *accounts.Sessions
}

// NewSessions keeps them in a database; one without serves for the description of the API only.
func NewSessions(db *sqlx.DB, secure bool) *Sessions {
	s := &Sessions{manager: scs.New()}
	s.manager.Lifetime = sessionLifetime
	s.manager.Cookie.Name = "heron_session"
	s.manager.Cookie.HttpOnly = true
	s.manager.Cookie.Secure = secure
	s.manager.HashTokenInStore = true
	s.manager.Cookie.SameSite = http.SameSiteLaxMode
	s.manager.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) { httpx.WriteError(w, r, err) }
	if db != nil {
		s.kept = accounts.NewSessions(db)
		s.manager.Store = s.kept
	}
	return s
}

// LoadAndSave reads the session of a request, and keeps what became of it.
func (s *Sessions) LoadAndSave(next http.Handler) http.Handler { return s.manager.LoadAndSave(next) }

// accountHeader says, in a change, whose it is.
const accountHeader = "Heron-Account"

// Identify finds out who is asking. A session whose account is gone counts as none.
func (s *Sessions) Identify(actions *app.App) func(next http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			// A page of somebody whose session was taken over in the same browser: what it sends is not this account's.
			id := s.manager.GetInt64(r.Context(), accountKey)
			if of := r.Header.Get(accountHeader); of != "" && of != strconv.FormatInt(id, 10) {
				id = 0
			}
			if id != 0 {
				actor, err := actions.Accounts.ActorByID(r.Context(), id)
				switch {
				case err == nil:
					r = r.WithContext(httpx.WithActor(r.Context(), actor))
				case !errors.Is(err, action.ErrNotFound):
					httpx.WriteError(w, r, err)
					return
				}
			}
			next.ServeHTTP(w, r)
		})
	}
}

// startSession signs an account in.
func (s *Sessions) startSession(ctx context.Context, actions *app.App, account int64,
	from httpx.Caller) (*sessionOutput, error) {
	// A new token: one that was planted before signing in must not become a session.
	if err := s.manager.RenewToken(ctx); err != nil {
		return nil, err
	}
	s.manager.Put(ctx, accountKey, account)
	s.manager.Put(ctx, startedKey, time.Now().Unix())
	s.manager.Put(ctx, addressKey, from.Address)
	s.manager.Put(ctx, agentKey, from.Agent[:min(len(from.Agent), 300)])
	actor, err := actions.Accounts.ActorByID(ctx, account)
	if err != nil {
		return nil, err
	}
	return sessionOf(actor), nil
}

// endSessions ends all sessions of an account, or all but the one that asks.
func (s *Sessions) endSessions(ctx context.Context, account int64, butThis bool) error {
	own := storedToken(s.manager.Token(ctx))
	return s.eachSession(ctx, account, func(session context.Context) error {
		if stored := s.manager.Token(session); !butThis || stored != own {
			return s.kept.DeleteCtx(ctx, stored)
		}
		return nil
	})
}

// storedToken is what the session library keeps of a token: who reads the database gets in with none.
func storedToken(token string) string {
	sum := sha256.Sum256([]byte(token))
	return base64.RawURLEncoding.EncodeToString(sum[:])
}

// eachSession visits the sessions of an account. The token of each is the stored one.
func (s *Sessions) eachSession(ctx context.Context, account int64, visit func(session context.Context) error) error {
	return s.manager.Iterate(ctx, func(session context.Context) error {
		if s.manager.GetInt64(session, accountKey) != account {
			return nil
		}
		return visit(session)
	})
}

// Session is where somebody is signed in.
type Session struct {
	Key     string    `json:"key" doc:"Names the session, to end it"`
	IsThis  bool      `json:"isThis" doc:"It is the one that asks"`
	Started time.Time `json:"started"`
	Address string    `json:"address"`
	Agent   string    `json:"agent" doc:"Browser or program, as it calls itself"`
}

// keyOf names a session to its owner, by what is kept of its token.
func keyOf(stored string) string {
	sum := sha256.Sum256([]byte(stored))
	return hex.EncodeToString(sum[:8])
}

func (s *Sessions) sessionsOf(ctx context.Context, account int64) ([]Session, error) {
	found := []Session{}
	own := storedToken(s.manager.Token(ctx))
	err := s.eachSession(ctx, account, func(session context.Context) error {
		stored := s.manager.Token(session)
		found = append(found, Session{
			Key: keyOf(stored), IsThis: stored == own, Started: time.Unix(s.manager.GetInt64(session, startedKey), 0),
			Address: s.manager.GetString(session, addressKey), Agent: s.manager.GetString(session, agentKey),
		})
		return nil
	})
	slices.SortFunc(found, func(a, b Session) int { return b.Started.Compare(a.Started) })
	return found, err
}

func registerSessions(api *httpx.API, actions *app.App, s *Sessions) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-sessions", Method: http.MethodGet, Path: "/api/session/all",
		Summary: "Where your account is signed in",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]Session], error) {
		return httpx.Answer(s.sessionsOf(ctx, actor.AccountID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "end-session", Method: http.MethodDelete, Path: "/api/session/all/{key}",
		Summary: "End one of your sessions", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Key string `path:"key" maxLength:"64"`
	}) (*struct{}, error) {
		ended := false
		err := s.eachSession(ctx, actor.AccountID, func(session context.Context) error {
			stored := s.manager.Token(session)
			if keyOf(stored) != in.Key {
				return nil
			}
			ended = true
			return s.kept.DeleteCtx(ctx, stored)
		})
		if err == nil && !ended {
			err = action.ErrNotFound
		}
		return nil, err
	})
}
