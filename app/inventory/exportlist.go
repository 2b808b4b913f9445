package inventory

import (
	"context"
	"strconv"

	"frugalheron/app/action"
	"frugalheron/app/people"
	"frugalheron/core/table"
)

// exportPage is how many machines are read at once for a file.
const exportPage = 500

var listColumns = []string{"accession", "name", "maker", "model", "place", "from_year", "boards", "chips",
	"unidentified", "ram_kb", "rom_kb", "taking_stock", "disputed"}

// ExportMachines writes the machines of a list as a table, in its order. Files leave the house: names of private persons
// are not in them, whoever asks.
func (s *Service) ExportMachines(ctx context.Context, actor action.Actor, list MachineList) (action.Content, error) {
	p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	list.Limit, list.After = exportPage, ""
	rows := [][]string{}
	for {
		page, err := s.ListMachines(ctx, actor, list)
		if err != nil {
			return action.Content{}, err
		}
		for _, m := range people.PublicOf(p, page.Machines) {
			year := ""
			if m.EraFrom != nil {
				year = strconv.Itoa(*m.EraFrom)
			}
			rows = append(rows, []string{m.Accession, m.Name, m.Maker, m.Model, m.Place, year, strconv.Itoa(m.Boards),
				strconv.Itoa(m.Chips), strconv.Itoa(m.Unidentified), m.RAM, m.ROM, m.Stage, strconv.Itoa(m.Disputed)})
		}
		if page.Next == "" {
			return action.CsvOf("machines.csv", table.Write(listColumns, rows)), nil
		}
		list.After = page.Next
	}
}
