package job

import "frugalheron/core/calendar"

// Proof is one time that the test was made which proves a job.
type Proof struct {
	On     string `json:"on" doc:"YYYY-MM-DD"`
	Passed bool   `json:"passed"`
	Said   string `json:"said" says:"text" doc:"What the test said"`
	By     string `json:"by"`
}

// ProofMonths is after how many months without power a test that was passed is due again: what was good on the bench need not
// be after a winter in store. A rule of thumb of this house.
const ProofMonths = 12

// ProofDue is the day on which the test of a job is due again: so long after it was passed, or after the machine was last
// under power since. The zero day for a test that was never made, or said no: then the job is unproven now.
func ProofDue(proofs []Proof, ran calendar.Date) calendar.Date {
	if len(proofs) == 0 || !proofs[len(proofs)-1].Passed {
		return calendar.Date{}
	}
	since, err := calendar.Parse(proofs[len(proofs)-1].On)
	if err != nil {
		return calendar.Date{}
	}
	if since.Before(ran) {
		since = ran
	}
	return since.AddMonths(ProofMonths)
}
