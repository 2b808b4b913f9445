package console

import (
	"context"
	"fmt"
	"log/slog"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	coreconsole "frugalheron/core/console"
	instrument "frugalheron/instruments/console"
	"frugalheron/instruments/practice"
	"frugalheron/store/console"
	storeinventory "frugalheron/store/inventory"
)

// listening is a capture that is under way. What comes is kept as it comes, so that nothing is lost when the application
// stops meanwhile.
type listening struct {
	id, machineID int64
	actor         action.Actor
	client        *instrument.Client
	stop          chan struct{}
	ended         chan struct{} // closed once it is at its end
}

// Bounds of listening: it ends after mostQuiet without a byte, and after mostTime in any case. What comes is kept each
// keepEvery.
const (
	mostQuiet = 10 * time.Minute
	mostTime  = 30 * time.Minute
	keepEvery = 500 * time.Millisecond
)

func (s *Service) listeningTo() int64 {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.now == nil {
		return 0
	}
	return s.now.id
}

func (s *Service) port() Port {
	p := Port{Address: s.address, Profiles: []string{}}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.now != nil {
		p.Listening, p.MachineID = s.now.id, s.now.machineID
	}
	return p
}

// Port asks for the port through which consoles are heard.
func (s *Service) Port(ctx context.Context, actor action.Actor) (Port, error) {
	p := s.port()
	if err := actor.Must(action.MayWriteSheets); err != nil || s.address == "" {
		return p, err
	}
	if p.Listening == 0 {
		client, err := instrument.Dial(ctx, s.address)
		if err != nil {
			p.Trouble = err.Error()
			return p, nil
		}
		client.Close()
	}
	if s.bench == "" {
		return p, nil
	}
	bench, err := practice.Dial(ctx, s.bench)
	if err != nil {
		p.Trouble = err.Error()
		return p, nil
	}
	defer bench.Close()
	if p.Profiles, p.Profile, err = bench.Profiles(ctx); err != nil {
		p.Trouble, p.Profiles = err.Error(), []string{}
	}
	return p, nil
}

// Play tells a stand-in what its console is. A real port takes nothing of the kind.
func (s *Service) Play(ctx context.Context, actor action.Actor, profile string) error {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return err
	}
	if s.bench == "" {
		return action.Reject("profile", "the console is that of a machine, no stand-in")
	}
	bench, err := practice.Dial(ctx, s.bench)
	if err != nil {
		return action.Reject("profile", err.Error())
	}
	defer bench.Close()
	if err := bench.Play(ctx, profile); err != nil {
		return action.Reject("profile", err.Error())
	}
	return nil
}

// Listen begins to listen to the console of a machine. One is heard at a time, as there is one port.
func (s *Service) Listen(ctx context.Context, actor action.Actor, machineID int64, in ListenInput) (Capture, error) {
	var begun Capture
	err := input.CheckAll(input.OneLine("line", &in.Line), input.OneLine("during", &in.During))
	if err != nil {
		return begun, err
	}
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return begun, err
	}
	if s.address == "" {
		return begun, action.Reject("console",
			"no console is set up; start the application with --console, or paste what stands on the screen")
	}
	l := &listening{machineID: machineID, actor: actor, stop: make(chan struct{}), ended: make(chan struct{})}
	if err := s.take(l); err != nil {
		return begun, err
	}
	if l.client, err = instrument.Dial(ctx, s.address); err != nil {
		s.release(l)
		return begun, action.Reject("console", err.Error())
	}
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := storeinventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		id, err := console.InsertCapture(ctx, tx, actor.Account(), console.Capture{MachineID: machineID, How: "heard",
			Raw: []byte{}, Line: in.Line, During: in.During, On: actor.Today()})
		if err != nil {
			return err
		}
		row, err := console.CaptureByID(ctx, tx, id)
		if err != nil {
			return err
		}
		begun = captureOf(row)
		return action.Record(ctx, tx, actor, eventListen, id, &machineID, nil, inWords(row))
	})
	if err != nil {
		l.client.Close() //nolint:errcheck // what went wrong is told
		s.release(l)
		return begun, err
	}
	s.mu.Lock()
	l.id = begun.ID
	s.mu.Unlock()
	go s.hear(context.WithoutCancel(ctx), l)
	return begun, nil
}

// take makes a listening the one that is under way; refused while there is another.
func (s *Service) take(l *listening) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.now != nil {
		return action.Reject("console", "somebody listens to it already; that has to be stopped first")
	}
	s.now = l
	return nil
}

func (s *Service) release(l *listening) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.now = nil
	close(l.ended)
}

// hear keeps what comes, until somebody stops, the line ends, nothing comes for long, or it is too much.
func (s *Service) hear(ctx context.Context, l *listening) {
	defer s.release(l)
	defer l.client.Close()
	since, last, kept := time.Now(), time.Now(), 0
	waiting, written := []byte{}, time.Now()
	why := ""
	for why == "" {
		heard, err := l.client.Read(keepEvery / 5)
		if len(heard) > 0 {
			last = time.Now()
		}
		waiting = append(waiting, heard...)
		if over := kept + len(waiting) - coreconsole.MostBytes; over > 0 {
			waiting = waiting[:len(waiting)-over]
			why = fmt.Sprintf("%d KiB came; what came behind them is not kept", coreconsole.MostBytes>>10)
		}
		select {
		case <-l.stop:
			why = "stopped"
		default:
		}
		switch {
		case why != "":
		case err != nil:
			why = err.Error()
		case time.Since(last) > mostQuiet:
			why = fmt.Sprintf("nothing came for %d minutes", int(mostQuiet.Minutes()))
		case time.Since(since) > mostTime:
			why = fmt.Sprintf("%d minutes were over", int(mostTime.Minutes()))
		}
		if len(waiting) > 0 && (why != "" || time.Since(written) > keepEvery) {
			if err := console.Append(ctx, s.kernel.DB, l.id, waiting); err != nil {
				slog.Error("what a console said cannot be kept", "capture", l.id, "error", err)
				why = "what came could not be kept any more"
			}
			kept += len(waiting)
			waiting, written = waiting[:0], time.Now()
		}
	}
	if err := s.end(ctx, l, why); err != nil {
		slog.Error("the end of listening to a console cannot be kept", "capture", l.id, "error", err)
	}
}

func (s *Service) end(ctx context.Context, l *listening, why string) error {
	return s.kernel.Do(ctx, l.actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := console.LockCapture(ctx, tx, l.id); err != nil {
			return err
		}
		if err := console.EndCapture(ctx, tx, l.id, why); err != nil {
			return err
		}
		row, err := console.CaptureByID(ctx, tx, l.id)
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, l.actor, eventHeard, l.id, &l.machineID, nil, inWords(row))
	})
}

// under is the listening of a capture; refused when nobody listens to it.
func (s *Service) under(id int64) (*listening, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.now == nil || s.now.id != id {
		return nil, action.Reject("capture", "nobody listens to it any more")
	}
	return s.now, nil
}

// Stop ends listening, and tells what was heard.
func (s *Service) Stop(ctx context.Context, actor action.Actor, id int64) (Capture, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return Capture{}, err
	}
	l, err := s.under(id)
	if err != nil {
		return Capture{}, err
	}
	s.mu.Lock()
	select {
	case <-l.stop: // two who stop at once
	default:
		close(l.stop)
	}
	s.mu.Unlock()
	select {
	case <-l.ended:
	case <-ctx.Done():
		return Capture{}, ctx.Err()
	}
	return s.Capture(ctx, actor, id)
}

// Type types a line on the console that is listened to. It stands in the history, unless it is a secret: then only that
// something was typed does.
func (s *Service) Type(ctx context.Context, actor action.Actor, id int64, typed string, isSecret bool) error {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return err
	}
	l, err := s.under(id)
	if err != nil {
		return err
	}
	if err := l.client.Type(typed); err != nil {
		return action.Reject("typed", err.Error())
	}
	if isSecret {
		typed = "a line that is not kept"
	}
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		return action.Record(ctx, tx, actor, eventType, id, &l.machineID, nil, map[string]any{"typed": typed})
	})
}
