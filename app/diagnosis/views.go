package diagnosis

import (
	"fmt"
	"strings"

	"frugalheron/app/action"
	"frugalheron/core/reckoning"
	"frugalheron/core/trials"
	"frugalheron/store/diagnosis"
)

// FactorInput is something that is changed between trials.
type FactorInput struct {
	Name       string  `json:"name" says:"text" maxLength:"200" example:"other memory card"`
	Kind       string  `json:"kind" enum:"part,setting,cleaning,environment,other" default:"other" required:"false"`
	Effort     float64 `json:"effort" minimum:"0" maximum:"100000" default:"1" required:"false" doc:"Of changing it: minutes, or any other measure"`
	Danger     bool    `json:"danger" required:"false" doc:"Having it on may hurt somebody or something"`
	AssemblyID *int64  `json:"assemblyId,omitempty" doc:"The board or card that is put in; left out where it is none of ours"`
}

// TrialInput is what was tried: the state of all factors, and how it went.
type TrialInput struct {
	On     []string `json:"on" says:"text" nullable:"false" maxItems:"64" doc:"Names of the factors that were on; all others were off"`
	Runs   int      `json:"runs" minimum:"1" maximum:"100000" default:"1" required:"false" doc:"How often it was run so"`
	Failed int      `json:"failed" minimum:"0" maximum:"100000" doc:"Of these, how often the symptom was there"`
	Day    string   `json:"day" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Note   string   `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// DiagnosisInput is a symptom with the trials that look for its cause.
type DiagnosisInput struct {
	Symptom string        `json:"symptom" says:"text" maxLength:"300" example:"no picture for the first ten minutes"`
	Since   string        `json:"since" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Factors []FactorInput `json:"factors" nullable:"false" maxItems:"64" required:"false"`
	Trials  []TrialInput  `json:"trials" nullable:"false" maxItems:"500" required:"false"`
	State   string        `json:"state" enum:"open,found,given up" default:"open" required:"false"`
	Cause   string        `json:"cause" says:"text" maxLength:"1000" required:"false" doc:"What it was, where it was found"`
	Note    string        `json:"note" says:"text" maxLength:"2000" required:"false"`
}

// Judged is what the trials tell.
type Judged struct {
	Explanations []trials.Explanation `json:"explanations" doc:"The likeliest first; more than a screen holds are cut off"`
	More         int                  `json:"more" doc:"Explanations that are left beside those"`
	Refuted      []string             `json:"refuted" says:"text" doc:"Factors in no explanation that is left"`
	Confounded   [][]string           `json:"confounded" says:"text" doc:"Factors that were on in the very same trials"`
	Next         *trials.NextTrial    `json:"next" doc:"The trial that tells most; null where fewer than two explanations are left"`
	Settled      bool                 `json:"settled"`
	Notes        []string             `json:"notes" says:"text"`
	InShort      string               `json:"inShort"`
	Results      []trials.Result      `json:"results" enum:"ok,fail,sometimes" doc:"How each trial went"`
	Left         []int                `json:"left" doc:"Explanations that were left after each trial"`
	LastGood     *trials.WayBack      `json:"lastGood" doc:"What leads back to the newest trial that went well; null where none did, or the last one"`
}

// Elsewhere is what trials tell of a board over all machines.
type Elsewhere struct {
	AssemblyID int64          `json:"assemblyId"`
	Title      string         `json:"title" says:"text"`
	Pairing    trials.Pairing `json:"pairing" enum:",bad part,bad pairing,good part,comes and goes" doc:"Empty where the trials tell nothing of it"`
	Machines   []InMachine    `json:"machines"`
}

// InMachine is how a board did in one machine.
type InMachine struct {
	MachineID int64  `json:"machineId"`
	Accession string `json:"accession"`
	OK        int    `json:"ok" doc:"Trials that went well"`
	Failed    int    `json:"failed"`
	Sometimes int    `json:"sometimes"`
	Last      string `json:"last" doc:"Day of the newest"`
}

// Diagnosis is a symptom with what its trials tell.
type Diagnosis struct {
	ID        int64  `json:"id"`
	MachineID int64  `json:"machineId"`
	Accession string `json:"accession"`
	DiagnosisInput
	Judged  Judged `json:"judged"`
	Version int    `json:"version"`
}

// Diagnoses are those of a machine.
type Diagnoses struct {
	Stage     reckoning.Stage `json:"stage"`
	Diagnoses []Diagnosis     `json:"diagnoses" doc:"The open ones first, then the newest"`
	Boards    []Elsewhere     `json:"boards" doc:"Boards that were tried, over all machines"`
	Offered   []Offered       `json:"offered" doc:"What was changed lately, by the history: it could be a factor"`
}

// Offered is something that was changed.
type Offered struct {
	Words string `json:"words" says:"text"`
	On    string `json:"on"`
	Kind  string `json:"kind" enum:"part,setting,cleaning,environment,other"`
}

func tell(row diagnosis.Diagnosis) Diagnosis {
	kept, _ := action.ReadKept[DiagnosisInput](row.Body) // written by this package alone
	kept.tidy()
	judged, _ := judge(kept) // what is kept was checked
	return Diagnosis{row.ID, row.MachineID, row.Accession, kept, judged, row.Version}
}

func (in *DiagnosisInput) tidy() {
	in.Factors, in.Trials = append([]FactorInput{}, in.Factors...), append([]TrialInput{}, in.Trials...)
	for i := range in.Trials {
		in.Trials[i].On = append([]string{}, in.Trials[i].On...)
	}
}

// core is what the rules of the job judge.
func (in DiagnosisInput) core() trials.Input {
	asked := trials.Input{}
	for _, f := range in.Factors {
		asked.Factors = append(asked.Factors, trials.Factor{Name: f.Name, Effort: f.Effort, Danger: f.Danger})
	}
	for _, t := range in.Trials {
		asked.Trials = append(asked.Trials, trials.Trial{On: t.On, Result: trials.Counted(t.Runs, t.Failed)})
	}
	// The symptom is what there is to explain: something makes it go.
	makes := trials.OK
	asked.Makes = &makes
	return asked
}

// mostExplanations is how many are told at once.
const mostExplanations = 30

func judge(in DiagnosisInput) (Judged, error) {
	asked := in.core()
	out, err := trials.Judge(asked)
	if err != nil {
		return Judged{Explanations: []trials.Explanation{}, Refuted: []string{}, Confounded: [][]string{},
			Notes:   []string{},
			Results: []trials.Result{}, Left: []int{}}, err
	}
	j := Judged{Explanations: out.Explanations, Refuted: out.Refuted, Confounded: out.Confounded, Next: out.Next,
		Settled: out.Settled, Notes: out.Notes, InShort: out.InShort(), Results: []trials.Result{},
		LastGood: trials.LastGood(asked)}
	if over := len(j.Explanations) - mostExplanations; over > 0 {
		j.Explanations, j.More = j.Explanations[:mostExplanations], over
	}
	for _, t := range asked.Trials {
		j.Results = append(j.Results, t.Result)
	}
	j.Left, err = trials.Left(asked)
	return j, err
}

// told is what the history keeps of one: each trial in a line.
func (d Diagnosis) told() map[string]any {
	factors, lines := []string{}, []string{}
	for _, f := range d.Factors {
		factors = append(factors, f.Name)
	}
	for i, t := range d.Trials {
		on := strings.Join(t.On, " + ")
		if on == "" {
			on = "nothing changed"
		}
		line := fmt.Sprintf("%d: %s, %s", i+1, on, d.Judged.Results[i])
		if t.Runs > 1 {
			line += fmt.Sprintf(" (%d of %d failed)", t.Failed, t.Runs)
		}
		lines = append(lines, line)
	}
	return map[string]any{"symptom": d.Symptom, "since": d.Since, "factors": strings.Join(factors, "; "),
		"trials": strings.Join(lines, "; "), "state": d.State, "cause": d.Cause, "note": d.Note}
}
