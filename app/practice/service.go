// Package practice lets people practise the ladder and diagnosis on a simulated machine. Nothing of it is a record of the
// collection: a session belongs to an account, stands in no list and no history, and is gone with the next one.
package practice

import (
	"context"
	"errors"
	"math/rand/v2"
	"strings"
	"sync"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/caution"
	"frugalheron/core/console"
	"frugalheron/core/gate"
	"frugalheron/core/practice"
	"frugalheron/core/quantity"
	instrument "frugalheron/instruments/console"
	"frugalheron/instruments/meter"
	bench "frugalheron/instruments/practice"
	store "frugalheron/store/practice"
)

// Addresses are where the practice machine, and the meter and the console beside it, are found; empty where there is none.
type Addresses struct{ Machine, Meter, Console string }

// Service does what is done to practise.
type Service struct {
	kernel *action.Kernel
	at     Addresses
	bench  sync.Mutex // the machine is one: it stands as one session has it, for as long as something is read there
}

// New returns it, without a machine.
func New(kernel *action.Kernel) *Service { return &Service{kernel: kernel} }

// On has people practise on the machine at an address.
func (s *Service) On(at Addresses) { s.at = at }

// Practice is how far somebody came who practises.
type Practice struct {
	Address  string                `json:"address" doc:"Of the practice machine; empty where none is set up"`
	Exercise *practice.Exercise    `json:"exercise" doc:"null until one is begun"`
	Version  int                   `json:"version"`
	Gate     *gate.Output          `json:"gate" doc:"How the gate stands by what was done; null without a session"`
	Rails    []gate.Rail           `json:"rails" doc:"As they were measured last"`
	Console  *console.TextReading  `json:"console" doc:"What it said since it was switched on or off last; null where nobody listened"`
	Units    []string              `json:"units"`
	Points   []string              `json:"points"`
	Faults   []practice.FaultWords `json:"faults"`
	Debrief  *practice.Debrief     `json:"debrief" doc:"null until somebody says what it is"`
	Cautions []caution.Caution     `json:"cautions" doc:"What would be taken care of on a machine that is one"`
}

// Practice reads it.
func (s *Service) Practice(ctx context.Context, actor action.Actor) (Practice, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Practice{}, err
	}
	session, version, err := s.session(ctx, actor)
	if err != nil {
		return Practice{}, err
	}
	return s.tell(actor, session, version), nil
}

func (s *Service) tell(actor action.Actor, session *practice.Exercise, version int) Practice {
	p := Practice{Address: s.at.Machine, Exercise: session, Version: version, Rails: []gate.Rail{},
		Units: practice.Units(), Points: practice.Points(), Faults: practice.Faults(),
		Cautions: caution.All([]caution.Key{caution.Mains, caution.Live, caution.Loose})}
	if session == nil {
		return p
	}
	out := session.Gate(actor.Day())
	p.Gate, p.Debrief = &out, session.Debrief()
	p.Rails = session.Rails(actor.Day())
	p.Console = session.Heard(actor.Day())
	return p
}

func (s *Service) session(ctx context.Context, actor action.Actor) (*practice.Exercise, int, error) {
	row, ok, err := store.SessionOf(ctx, s.kernel.Reader(ctx), actor.AccountID)
	if err != nil || !ok {
		return nil, 0, err
	}
	session, err := action.ReadKept[practice.Exercise](row.Body)
	return &session, row.Version, err
}

func benchOf(session practice.Exercise) bench.Bench {
	return bench.Bench{Seed: session.Seed, On: session.On, Load: session.Load, Fitted: session.Fitted}
}

// errNoMachine is said where there is nothing to practise on.
var errNoMachine = action.Reject("machine",
	"no practice machine is set up; start heron instruments, and the application with --practice, --meter and --console")

var (
	errNoSession = action.Reject("session", "none is begun yet")
	errOtherwise = action.Reject("deed", "something else was done meanwhile, in another window; look again")
)

// Begin begins a session with a machine of which nobody knows what is wrong, in the place of the one before. A seed that
// is not 0 begins with the machine of that seed.
func (s *Service) Begin(ctx context.Context, actor action.Actor, seed int) (Practice, error) {
	if s.at.Machine == "" {
		return Practice{}, errNoMachine
	}
	if seed == 0 {
		seed = 1 + rand.IntN(1_000_000) //nolint:gosec // no secret
	}
	return s.keep(ctx, actor, func(*practice.Exercise) (practice.Exercise, error) { return practice.Begin(seed), nil })
}

// keep changes the session of an actor, and tells it.
func (s *Service) keep(ctx context.Context, actor action.Actor,
	change func(*practice.Exercise) (practice.Exercise, error)) (Practice, error) {
	err := s.kernel.Do(ctx, actor, action.MayLook, func(tx *sqlx.Tx) error {
		row, ok, err := store.SessionOf(ctx, tx, actor.AccountID)
		if err != nil {
			return err
		}
		var now *practice.Exercise
		if ok {
			kept, err := action.ReadKept[practice.Exercise](row.Body)
			if err != nil {
				return err
			}
			now = &kept
		}
		changed, err := change(now)
		if err != nil {
			return err
		}
		_, err = store.KeepSession(ctx, tx, actor.AccountID, action.ToKeep(changed))
		return err
	})
	if err != nil {
		return Practice{}, err
	}
	return s.Practice(ctx, actor)
}

// Do does a deed on the machine: what is to be seen at it is read through the instruments.
func (s *Service) Do(ctx context.Context, actor action.Actor, deed practice.Act) (Practice, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Practice{}, err
	}
	if s.at.Machine == "" {
		return Practice{}, errNoMachine
	}
	session, _, err := s.session(ctx, actor)
	switch {
	case err != nil:
		return Practice{}, err
	case session == nil:
		return Practice{}, errNoSession
	}
	if err := session.Check(deed); err != nil {
		return Practice{}, action.Reject("deed", err.Error())
	}
	saw := practice.Observed{}
	if deed.Needs() {
		if saw, err = s.observe(ctx, *session, deed); err != nil {
			return Practice{}, action.Reject("deed", err.Error())
		}
	}
	return s.keep(ctx, actor, func(now *practice.Exercise) (practice.Exercise, error) {
		if now == nil || len(now.Log) != len(session.Log) || now.Seed != session.Seed {
			return practice.Exercise{}, errOtherwise
		}
		if err := now.Do(deed, saw, actor.Day()); err != nil {
			return *now, action.Reject("deed", err.Error())
		}
		return *now, nil
	})
}

// Say says what is wrong with the machine, and ends the session with what it is.
func (s *Service) Say(ctx context.Context, actor action.Actor, said practice.NamedFault) (Practice, error) {
	session, _, err := s.session(ctx, actor)
	if err != nil {
		return Practice{}, err
	}
	if session == nil {
		return Practice{}, errNoSession
	}
	is, err := s.answer(ctx, *session)
	if err != nil {
		return Practice{}, action.Reject("machine", err.Error())
	}
	return s.keep(ctx, actor, func(now *practice.Exercise) (practice.Exercise, error) {
		if now == nil || now.Seed != session.Seed {
			return practice.Exercise{}, errOtherwise
		}
		if err := now.Say(said, is); err != nil {
			return *now, action.Reject("fault", err.Error())
		}
		return *now, nil
	})
}

func (s *Service) answer(ctx context.Context, session practice.Exercise) (is practice.NamedFault, err error) {
	s.bench.Lock()
	defer s.bench.Unlock()
	machine, err := bench.Dial(ctx, s.at.Machine)
	if err != nil {
		return is, err
	}
	defer machine.Close()
	if _, err := machine.Put(ctx, benchOf(session)); err != nil {
		return is, err
	}
	return machine.Answer(ctx)
}

// observe makes the machine stand as a session has it, and reads what is to be seen there.
func (s *Service) observe(ctx context.Context, session practice.Exercise, deed practice.Act) (practice.Observed,
	error) {
	saw := practice.Observed{}
	s.bench.Lock()
	defer s.bench.Unlock()
	machine, err := bench.Dial(ctx, s.at.Machine)
	if err != nil {
		return saw, err
	}
	defer machine.Close()
	lamps, err := machine.Put(ctx, benchOf(session))
	switch {
	case err != nil:
		return saw, err
	case deed.Kind == practice.Look:
		saw.Text = lamps
		return saw, nil
	case deed.Kind == practice.Listen:
		saw.Text, err = s.listen(ctx)
		return saw, err
	}
	volts, err := s.measure(ctx, deed.What)
	saw.Volts = &volts
	return saw, err
}

// listenFor is how long the console has to be quiet until it has said all.
const listenFor = 250 * time.Millisecond

func (s *Service) listen(ctx context.Context) (string, error) {
	if s.at.Console == "" {
		return "", errors.New("no console is set up; start the application with --console")
	}
	client, err := instrument.Dial(ctx, s.at.Console)
	if err != nil {
		return "", err
	}
	defer client.Close()
	var said strings.Builder
	for said.Len() < console.MostBytes && ctx.Err() == nil {
		heard, err := client.Read(listenFor)
		if err != nil || len(heard) == 0 {
			return said.String(), err
		}
		said.Write(heard)
	}
	return said.String(), ctx.Err()
}

// measure puts the leads of the meter's stand-in to a point of the machine, reads, and puts them back where they were.
func (s *Service) measure(ctx context.Context, point string) (float64, error) {
	if s.at.Meter == "" {
		return 0, errors.New("no meter is set up; start the application with --meter")
	}
	client, err := meter.Dial(ctx, s.at.Meter)
	if err != nil {
		return 0, err
	}
	defer client.Close()
	before, _, err := client.State(ctx)
	if err != nil {
		return 0, err
	}
	if err := client.Touch(ctx, practice.PointOf(point), ""); err != nil {
		return 0, err
	}
	defer client.Touch(context.WithoutCancel(ctx), before, "") //nolint:errcheck // the reading is told
	return client.Read(ctx, quantity.Volts)
}
