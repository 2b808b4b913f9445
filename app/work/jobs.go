package work

import (
	"context"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	appinventory "frugalheron/app/inventory"
	"frugalheron/core/calendar"
	"frugalheron/core/caution"
	"frugalheron/core/job"
	"frugalheron/core/measure"
	"frugalheron/core/sheet"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/work"
)

// JobInput is what is to be done.
type JobInput struct {
	Title       string   `json:"title" says:"text" maxLength:"200"`
	Template    string   `json:"template" maxLength:"40" required:"false" doc:"The usual job that it is; empty for none"`
	FindingKeys []string `json:"findingKeys" maxItems:"50" required:"false" doc:"The findings that it mends"`
	AssemblyID  *int64   `json:"assemblyId,omitempty" doc:"The board that it is done on; left out for the machine as a whole"`
	Place       string   `json:"place" says:"text" maxLength:"200" required:"false" doc:"Designators, or where, in words"`
	Needs       []string `json:"needs" says:"text" maxItems:"30" required:"false" doc:"Parts that it waits for until they are there"`
	Proof       string   `json:"proof" says:"text" maxLength:"300" required:"false" doc:"The test that proves it; empty where none does"`
	Temporary   string   `json:"temporary" maxLength:"10" required:"false" doc:"Of a temporary repair: the day by which the lasting one is due, YYYY-MM-DD"`
	Note        string   `json:"note" says:"text" maxLength:"2000" required:"false"`

	PicturesBefore []int64 `json:"picturesBefore,omitempty" maxItems:"40" required:"false" nullable:"false" doc:"Pictures of the machine that show it before"`
	PicturesAfter  []int64 `json:"picturesAfter,omitempty" maxItems:"40" required:"false" nullable:"false" doc:"And after"`
}

// JobMeasured is what was measured where a job is done.
type JobMeasured struct {
	ID      int64           `json:"id"`
	On      string          `json:"on"`
	Point   string          `json:"point" says:"text"`
	Said    string          `json:"said" says:"text"`
	Verdict measure.Verdict `json:"verdict" enum:"pass,marginal,fail,noted"`
	After   bool            `json:"after" doc:"Since the job ended; of its day one cannot tell, and it counts as after"`
}

// Ending is how a job ended.
type Ending struct {
	On         string         `json:"on" doc:"YYYY-MM-DD; empty while it is open"`
	New        string         `json:"new" says:"text" doc:"The part that is in now; empty where none was replaced"`
	TakenOut   bool           `json:"takenOut" doc:"The place is empty since"`
	OldPart    string         `json:"oldPart" enum:",kept,returned,scrapped"`
	Proven     bool           `json:"proven"`
	ProvenBy   string         `json:"provenBy" says:"text" doc:"What the test said last"`
	Proofs     []job.Proof    `json:"proofs" doc:"Each time that the test was made, the last one last"`
	Reversible job.Reversible `json:"reversible" enum:",yes,partly,no"`
	Undo       string         `json:"undo" says:"text" doc:"What would undo it"`
	By         string         `json:"by"`
}

// keptJob is what is kept of one beside its state.
type keptJob struct {
	JobInput
	Minutes int    `json:"minutes"`
	Left    string `json:"left"`
	Why     string `json:"why"`
	Ending  Ending `json:"ending"`
}

// Job is work on a machine.
type Job struct {
	ID        int64  `json:"id"`
	MachineID int64  `json:"machineId"`
	Accession string `json:"accession"`
	Machine   string `json:"machine" says:"text"`
	JobInput
	State    job.State         `json:"state" enum:"waiting for part,waiting for hands,in hand,done,declined"`
	Unproven bool              `json:"unproven" doc:"It is done, and the test that proves it was not made"`
	ProofDue string            `json:"proofDue" doc:"Day on which the test that proves it is due again, after months without power; empty for none"`
	Minutes  int               `json:"minutes" doc:"Spent on it"`
	Left     string            `json:"left" says:"text" doc:"What is left of it, where it was done in part"`
	Why      string            `json:"why" says:"text" doc:"Why it waits, or was declined"`
	Ending   Ending            `json:"ending"`
	Usual    *job.Template     `json:"usual" doc:"How it is usually done; null where it is no usual job"`
	Cautions []caution.Caution `json:"cautions" doc:"Of its steps, each once; none once it is ended"`
	Measured []JobMeasured     `json:"measured" doc:"Where it is done, the oldest first: what was read before it, and after"`
	By       string            `json:"by"`
	Version  int               `json:"version"`
}

func tellJob(row work.Job) Job {
	kept, _ := action.ReadKept[keptJob](row.Body)
	j := Job{ID: row.ID, MachineID: row.MachineID, Accession: row.Accession, Machine: row.Machine,
		JobInput: kept.JobInput,
		State:    job.State(row.State), Minutes: kept.Minutes, Left: kept.Left, Why: kept.Why, Ending: kept.Ending,
		Cautions: []caution.Caution{}, Measured: []JobMeasured{}, By: row.By, Version: row.Version}
	j.FindingKeys, j.Needs = append([]string{}, j.FindingKeys...), append([]string{}, j.Needs...)
	j.Ending.Proofs = append([]job.Proof{}, j.Ending.Proofs...)
	if j.Ending.Proven && len(j.Ending.Proofs) == 0 {
		j.Ending.Proofs = []job.Proof{{On: j.Ending.On, Passed: true, Said: j.Ending.ProvenBy, By: j.Ending.By}}
	}
	if ran, err := calendar.Parse(row.Ran); j.State == job.Done && (err == nil || row.Ran == "") {
		if due := job.ProofDue(j.Ending.Proofs, ran); !due.IsZero() && j.Proof != "" {
			j.ProofDue = due.String()
		}
	}
	j.Unproven = j.State == job.Done && j.Proof != "" && !j.Ending.Proven
	if t, ok := job.Of(j.Template); ok {
		j.Usual = &t
	}
	if j.State.IsOpen() {
		j.Cautions = caution.All(caution.Due(j.steps()))
	}
	return j
}

// steps are the words by which its cautions are told.
func (j Job) steps() string {
	words := []string{j.Title, j.Note}
	if j.Usual != nil {
		words = append(words, j.Usual.Steps...)
	}
	return strings.Join(words, "; ")
}

func (j Job) kept() keptJob {
	return keptJob{JobInput: j.JobInput, Minutes: j.Minutes, Left: j.Left, Why: j.Why, Ending: j.Ending}
}

func (j Job) told() map[string]any {
	return map[string]any{"title": j.Title, "state": string(j.State), "left": j.Left, "why": j.Why,
		"minutes": j.Minutes,
		"place":   j.Place, "needs": strings.Join(j.Needs, ", "), "proof": j.Proof, "temporary": j.Temporary,
		"note": j.Note,
		"on":   j.Ending.On, "new": j.Ending.New, "oldPart": j.Ending.OldPart}
}

var jobs = action.Records[work.Job, Job]{What: "the job", Lock: work.LockJob, Read: work.JobByID,
	Version: func(r work.Job) int { return r.Version }, Told: func(r work.Job) any { return tellJob(r).told() },
	View:    tellJob,
	Machine: func(r work.Job) *int64 { return &r.MachineID }}

func (in *JobInput) check(ctx context.Context, h pg.Handle, machineID int64) error {
	err := input.CheckAll(input.OneLine("title", &in.Title), input.OneLine("place", &in.Place),
		input.OneLine("proof", &in.Proof), input.Lines("note", &in.Note))
	if err != nil {
		return err
	}
	usual, isUsual := job.Of(in.Template)
	switch {
	case in.Template != "" && !isUsual:
		return action.Reject("template", "is none of the usual jobs; choose one of the list, or none")
	case in.Title == "" && isUsual:
		in.Title = usual.Title
	case in.Title == "":
		return action.Reject("title", "say what is to be done")
	}
	if isUsual && in.Proof == "" {
		in.Proof = usual.Proof
	}
	if in.Temporary != "" {
		if err := input.Day("temporary", in.Temporary); err != nil {
			return err
		}
	}
	needs := []string{}
	for _, need := range in.Needs {
		if err := input.OneLine("needs", &need); err != nil {
			return err
		}
		if len(need) > 300 {
			return action.Reject("needs", "one of them is longer than 300 letters; write it shorter")
		}
		if need != "" {
			needs = append(needs, need)
		}
	}
	in.Needs = needs
	shown := appinventory.NamedIf("assemblyId", inventory.OwnedBoard, in.AssemblyID)
	for _, id := range in.PicturesBefore {
		shown = append(shown, appinventory.NamedAs("picturesBefore", inventory.OwnedPicture, id))
	}
	for _, id := range in.PicturesAfter {
		shown = append(shown, appinventory.NamedAs("picturesAfter", inventory.OwnedPicture, id))
	}
	return appinventory.OfMachine(ctx, h, machineID, shown...)
}

// measuredAt tells what was measured at the parts, or the rail, that a job is about.
func (j *Job) measuredAt(all []condition.Measurement) {
	places := sheet.Designators(j.Place, mostPlaces)
	for _, m := range slices.Backward(all) {
		isThere := j.AssemblyID == nil || m.AssemblyID == nil || *m.AssemblyID == *j.AssemblyID
		if !isThere || !slices.ContainsFunc(places, func(p string) bool { return strings.EqualFold(p, m.Point) }) &&
			!strings.EqualFold(strings.TrimSpace(j.Place), m.Point) {
			continue
		}
		j.Measured = append(j.Measured, JobMeasured{ID: m.ID, On: m.On, Point: m.Point, Said: m.Judged.InWords,
			Verdict: m.Judged.Verdict, After: j.Ending.On != "" && m.On >= j.Ending.On})
	}
	j.Measured = j.Measured[max(0, len(j.Measured)-mostMeasured):]
}

// Bounds of what is told of a job: designators that are looked for, and what was measured there.
const (
	mostPlaces   = 60
	mostMeasured = 8
)

// AddJob puts down what is to be done. It waits for its parts, or else for hands.
func (s *Service) AddJob(ctx context.Context, actor action.Actor, machineID int64, in JobInput) (Job, error) {
	var added Job
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if err := in.check(ctx, tx, machineID); err != nil {
			return err
		}
		state := job.WaitsForHands
		if len(in.Needs) > 0 {
			state = job.WaitsForPart
		}
		id, err := work.InsertJob(ctx, tx, actor.Account(), machineID, string(state),
			action.ToKeep(keptJob{JobInput: in}))
		if err != nil {
			return err
		}
		row, err := work.JobByID(ctx, tx, id)
		if err != nil {
			return err
		}
		added = tellJob(row)
		return action.Record(ctx, tx, actor, eventAddJob, id, &machineID, nil, added.told())
	})
	return added, err
}

// ChangeJob rewrites what is to be done, starting from a version.
func (s *Service) ChangeJob(ctx context.Context, actor action.Actor, id int64, version int, in JobInput) (Job, error) {
	return jobs.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeJob,
		ID: id, Version: version}, func(tx *sqlx.Tx, before work.Job) error {
		if before.Voided {
			return action.ErrNotFound
		}
		if err := in.check(ctx, tx, before.MachineID); err != nil {
			return err
		}
		if err := s.parts.Release(ctx, tx, actor, id, in.Needs); err != nil {
			return err
		}
		kept := tellJob(before).kept()
		kept.JobInput = in
		return work.UpdateJob(ctx, tx, id, before.State, action.ToKeep(kept), false)
	})
}

// WorkInput is how a job goes on.
type WorkInput struct {
	State   job.State `json:"state" enum:"waiting for part,waiting for hands,in hand,declined"`
	Minutes int       `json:"minutes" minimum:"0" maximum:"100000" required:"false" doc:"Spent on it since it was last said"`
	Left    string    `json:"left" says:"text" maxLength:"1000" required:"false" doc:"What is left, where it was done in part"`
	Why     string    `json:"why" says:"text" maxLength:"1000" required:"false" doc:"Why it waits; of one that is declined it has to be said"`
}

// WorkOnJob says how a job goes on: that it is in hand, waits, was done in part, or is declined.
func (s *Service) WorkOnJob(ctx context.Context, actor action.Actor, id int64, version int, in WorkInput) (Job, error) {
	if err := input.CheckAll(input.Lines("left", &in.Left), input.Lines("why", &in.Why)); err != nil {
		return Job{}, err
	}
	if in.State == job.Declined && in.Why == "" {
		return Job{}, action.Reject("why", "say why it is not to be done")
	}
	return jobs.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventWorkOnJob,
		ID: id, Version: version}, func(tx *sqlx.Tx, before work.Job) error {
		if before.Voided {
			return action.ErrNotFound
		}
		if in.State == job.Declined {
			if err := s.parts.Release(ctx, tx, actor, id, nil); err != nil {
				return err
			}
		}
		kept := tellJob(before).kept()
		kept.Minutes, kept.Left, kept.Why, kept.Ending = kept.Minutes+in.Minutes, in.Left, in.Why, Ending{}
		return work.UpdateJob(ctx, tx, id, string(in.State), action.ToKeep(kept), false)
	})
}

var voidedJobs = action.Voiding[work.Job]{Roles: action.MayWriteSheets, Event: eventVoidJob,
	Back: eventTakeBackVoidOfJob, IsVoided: func(r work.Job) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r work.Job, voided bool) error {
		return work.UpdateJob(ctx, tx, r.ID, r.State, r.Body, voided)
	}}

// VoidJob strikes one out that was put down by mistake.
func (s *Service) VoidJob(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	err = s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		if event, err = jobs.Void(ctx, s.kernel, actor, voidedJobs, id, version); err != nil {
			return err
		}
		return s.parts.Release(ctx, tx, actor, id, nil)
	})
	return event, err
}

func (s *Service) undoVoidJob(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return jobs.Unvoid(ctx, s.kernel, actor, voidedJobs, e)
}

// has reports whether a job mends a finding.
func (j Job) has(key string) bool { return slices.Contains(j.FindingKeys, key) }
