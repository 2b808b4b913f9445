package work

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/core/condition"
	"frugalheron/core/job"
	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
	"frugalheron/store/work"
)

// Treatment is what is done to a machine, and what could be.
type Treatment struct {
	Stage    reckoning.Stage `json:"stage"`
	Jobs     []Job           `json:"jobs" doc:"The open ones first, each in the order in which they were put down"`
	Wanting  []Wanting       `json:"wanting" doc:"Open findings that no job mends yet, and of which nobody decided that none does, the gravest first"`
	Usual    []job.Template  `json:"usual" doc:"All usual jobs"`
	Minutes  int             `json:"minutes" doc:"That the open jobs usually take"`
	Spent    int             `json:"spent" doc:"Minutes spent on all jobs"`
	Again    []MendedAgain   `json:"again" doc:"What was mended so often on one board that one asks whether to go on, or to replace it"`
	WaitsFor []string        `json:"waitsFor" says:"text" doc:"Parts that open jobs wait for"`
	Gather   *Gathering      `json:"gather" doc:"The fewest swaps that bring all bad chips onto one board; null where there is nothing to gain"`
}

// MendedAgain is a fault of one class that one board had again and again: go on mending, or replace it?
type MendedAgain struct {
	AssemblyID int64  `json:"assemblyId"`
	Usual      string `json:"usual" doc:"Key of the usual job"`
	Times      int    `json:"times"`
	Minutes    int    `json:"minutes" doc:"Spent on all of them; 0 where nobody said"`
	Next       int    `json:"next" doc:"Minutes that once more would usually take"`
	First      string `json:"first"`
	Last       string `json:"last"`
}

// Wanting is a finding that no job mends yet, with the usual jobs that would.
type Wanting struct {
	Key        string             `json:"key"`
	Where      string             `json:"where" says:"text"`
	Kind       string             `json:"kind" says:"text"`
	Severity   condition.Severity `json:"severity" enum:"cosmetic,watch,repair,hazard"`
	AssemblyID *int64             `json:"assemblyId"`
	Place      string             `json:"place" says:"text" doc:"Designators, where it has some"`
	Usual      []string           `json:"usual" doc:"Keys of the usual jobs, the likeliest first"`
	Policy     *Advised           `json:"policy" doc:"What follows by what was chosen for the machine, or null"`
}

// Treatment reads it.
func (s *Service) Treatment(ctx context.Context, actor action.Actor, machineID int64) (Treatment, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Treatment, error) {
		t := Treatment{Stage: reckoning.Stage{State: reckoning.Untouched}, Jobs: []Job{}, Wanting: []Wanting{},
			Again: []MendedAgain{}, Usual: job.Templates(), WaitsFor: []string{}}
		how, err := s.condition.Condition(ctx, actor, machineID)
		if err != nil {
			return t, err
		}
		rows, err := work.JobsOf(ctx, s.kernel.Reader(ctx), machineID)
		if err != nil {
			return t, err
		}
		measured, err := s.condition.Measurements(ctx, actor, machineID)
		if err != nil {
			return t, err
		}
		ended := []Job{}
		for _, row := range rows {
			one := tellJob(row)
			one.measuredAt(measured)
			t.Spent += one.Minutes
			if !one.State.IsOpen() {
				ended = append(ended, one)
				continue
			}
			t.Jobs = append(t.Jobs, one)
			if one.Usual != nil {
				t.Minutes += one.Usual.Minutes
			}
			if one.State == job.WaitsForPart {
				t.WaitsFor = append(t.WaitsFor, one.Needs...)
			}
		}
		t.stand(len(t.Jobs), ended)
		t.Again = mendedAgain(ended)
		t.Jobs = append(t.Jobs, ended...)
		for _, severity := range []condition.Severity{condition.Hazard, condition.Repair, condition.Watch,
			condition.Cosmetic} {
			for _, f := range how.Findings {
				if f.Story.Open && f.Story.Severity == severity && !t.isMended(f.Key) {
					t.want(Wanting{Key: f.Key, Where: f.Where, Kind: f.Kind, Severity: severity,
						AssemblyID: f.AssemblyID,
						Place:      f.Designator}, f.Subsystem)
				}
			}
		}
		if t.Gather, err = gatherOnOneBoard(ctx, s.kernel.Reader(ctx), machineID, how.Findings); err != nil {
			return t, err
		}
		return t, s.advise(ctx, actor, machineID, &t, how.Findings)
	})
}

func mendedAgain(ended []Job) []MendedAgain {
	done := []job.Mended{}
	for _, j := range ended {
		if j.State == job.Done && j.AssemblyID != nil {
			done = append(done, job.Mended{Board: *j.AssemblyID, Template: j.Template, Minutes: j.Minutes,
				On: j.Ending.On})
		}
	}
	return action.Views(job.OftenMended(done), func(a job.Again) MendedAgain {
		usual, _ := job.Of(a.Template)
		return MendedAgain{a.Board, a.Template, a.Times, a.Minutes, usual.Minutes, a.First, a.Last}
	})
}

func (t *Treatment) want(w Wanting, subsystem string) {
	w.Usual = action.Views(job.For(subsystem, w.Kind+" "+w.Where), func(one job.Template) string { return one.Key })
	t.Wanting = append(t.Wanting, w)
}

// isMended reports whether an open job mends a finding, or it was decided that none does.
func (t *Treatment) isMended(key string) bool {
	for _, j := range t.Jobs {
		if j.State != job.Done && j.has(key) {
			return true
		}
	}
	return false
}

// stand says how far making good has come.
func (t *Treatment) stand(open int, ended []Job) {
	unproven := 0
	for _, j := range ended {
		if j.Unproven {
			unproven++
		}
	}
	switch {
	case unproven > 0:
		t.Stage = reckoning.Stage{State: reckoning.NeedsAttention, Count: unproven}
	case open > 0:
		t.Stage = reckoning.Stage{State: reckoning.InHand, Count: open}
	case len(ended) > 0:
		t.Stage.State = reckoning.Settled
	}
}

// OpenJobs lists the jobs of all machines that are not ended.
func (s *Service) OpenJobs(ctx context.Context, actor action.Actor) ([]Job, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := work.OpenJobs(ctx, s.kernel.Reader(ctx), mostOpen)
	return action.Views(rows, tellJob), err
}

// mostOpen bounds the list of all machines; who has more works on machine by machine.
const mostOpen = 500

var (
	jobOpen        = verdict.NewSentence("job-open", "{title}: {state}{why}")
	jobTestAgain   = verdict.NewSentence("job-test-again", "the test of {title} is due again since {day}: {proof}")
	jobProvisional = verdict.NewSentence("job-provisional", "{title} is temporary: the lasting repair was due by {day}")
)

// Verdicts are the lines of the reckoning that follow from jobs.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	rows, err := work.JobsOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, err
	}
	v := verdict.Verdict{Key: "jobs", Label: "Jobs", Why: []verdict.Reason{}}
	unproven, provisional, again := 0, 0, 0
	for _, row := range rows {
		j := tellJob(row)
		if j.isProvisional(actor.Today()) {
			provisional++
			v.Why = append(v.Why, jobProvisional.Because(j.Title, j.Temporary))
		}
		if j.ProofDue != "" && j.ProofDue <= actor.Today() {
			again++
			v.Why = append(v.Why, jobTestAgain.Because(j.Title, j.ProofDue, j.Proof))
		}
		state := string(j.State)
		switch {
		case j.Unproven:
			unproven++
			state = "done, unproven: " + j.Proof
		case !j.State.IsOpen():
			continue
		}
		why := ""
		if j.State == job.WaitsForPart && len(j.Needs) > 0 {
			why = ", " + j.Needs[0]
		}
		v.Why = append(v.Why, jobOpen.Because(j.Title, state, why))
	}
	v.Value = verdict.Counted(len(v.Why)-unproven-provisional-again, "open", "open")
	if provisional > 0 {
		v.Value += ", " + verdict.Counted(provisional, "temporary and overdue", "temporary and overdue")
		v.State = verdict.Attention
	}
	if again > 0 {
		v.Value += ", " + verdict.Counted(again, "to test again", "to test again")
		v.State = verdict.Attention
	}
	if unproven > 0 {
		v.Value += ", " + verdict.Counted(unproven, "unproven", "unproven")
		v.State = verdict.Attention
	}
	if len(v.Why) == 0 {
		v.Value = ""
	}
	return verdict.Telling(v), nil
}
