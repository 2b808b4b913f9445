package web

import (
	"context"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app/action"
	"frugalheron/store/accounts"
)

// What a session remembers beside the account, so that its owner can tell it from others.
const (
	startedKey = "started"
	addressKey = "address"
	agentKey   = "agent"
)

// startSession signs an account in.
func (s *Server) startSession(ctx context.Context, account accounts.Account, from Caller) (*sessionOutput, error) {
	// A new token: one that was planted before signing in must not become a session.
	if err := s.sessions.RenewToken(ctx); err != nil {
		return nil, err
	}
	s.sessions.Put(ctx, accountKey, account.ID)
	s.sessions.Put(ctx, startedKey, time.Now().Unix())
	s.sessions.Put(ctx, addressKey, from.address)
	s.sessions.Put(ctx, agentKey, from.agent[:min(len(from.agent), 300)])
	return sessionOf(action.Actor{AccountID: account.ID, Name: account.Name, Role: action.Role(account.Role)}), nil
}

// endSessions ends all sessions of an account, or all but the one that asks.
func (s *Server) endSessions(ctx context.Context, account int64, butThis bool) error {
	own := storedToken(s.sessions.Token(ctx))
	return s.eachSession(ctx, account, func(session context.Context) error {
		if stored := s.sessions.Token(session); !butThis || stored != own {
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
func (s *Server) eachSession(ctx context.Context, account int64, visit func(session context.Context) error) error {
	return s.sessions.Iterate(ctx, func(session context.Context) error {
		if s.sessions.GetInt64(session, accountKey) != account {
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

func (s *Server) sessionsOf(ctx context.Context, account int64) ([]Session, error) {
	found := []Session{}
	own := storedToken(s.sessions.Token(ctx))
	err := s.eachSession(ctx, account, func(session context.Context) error {
		stored := s.sessions.Token(session)
		found = append(found, Session{
			Key: keyOf(stored), IsThis: stored == own, Started: time.Unix(s.sessions.GetInt64(session, startedKey), 0),
			Address: s.sessions.GetString(session, addressKey), Agent: s.sessions.GetString(session, agentKey),
		})
		return nil
	})
	slices.SortFunc(found, func(a, b Session) int { return b.Started.Compare(a.Started) })
	return found, err
}

func (s *Server) registerSessions() {
	register(s, action.MayLook, huma.Operation{
		OperationID: "list-sessions", Method: http.MethodGet, Path: "/api/session/all", Summary: "Where your account is signed in",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*output[[]Session], error) {
		return answer(s.sessionsOf(ctx, actor.AccountID))
	})
	register(s, action.MayLook, huma.Operation{
		OperationID: "end-session", Method: http.MethodDelete, Path: "/api/session/all/{key}", Summary: "End one of your sessions", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Key string `path:"key" maxLength:"64"`
	}) (*struct{}, error) {
		ended := false
		err := s.eachSession(ctx, actor.AccountID, func(session context.Context) error {
			stored := s.sessions.Token(session)
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
