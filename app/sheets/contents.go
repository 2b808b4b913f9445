package sheets

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
)

// FittedAssembly is an assembly with its newest sheet, as it lies on the bench.
type FittedAssembly struct {
	inventory.Assembly
	Body string `json:"body" says:"sheet" doc:"Text of the newest revision of its sheet"`
}

// AssemblyWithSheet reads an assembly with its newest sheet.
func (s *Service) AssemblyWithSheet(ctx context.Context, actor action.Actor, id int64) (FittedAssembly, error) {
	assembly, err := s.inventory.Assembly(ctx, actor, id)
	if err != nil {
		return FittedAssembly{}, err
	}
	revision, err := s.Sheet(ctx, actor, id)
	assembly.Revision = revision.N
	return FittedAssembly{assembly, revision.Body}, err
}

// Contents lists what is fitted in a machine today, each with its sheet.
func (s *Service) Contents(ctx context.Context, actor action.Actor, machineID int64) ([]FittedAssembly, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	return Contents(ctx, s.kernel.Reader(ctx), machineID)
}

// Contents lists what is fitted in a machine today, each with its newest sheet.
func Contents(ctx context.Context, h pg.Handle, machineID int64) ([]FittedAssembly, error) {
	return action.Once(ctx, "sheets", machineID, func() ([]FittedAssembly, error) { return contents(ctx, h, machineID) })
}

func contents(ctx context.Context, h pg.Handle, machineID int64) ([]FittedAssembly, error) {
	assemblies, err := inventory.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	revisions, err := sheets.NewestRevisionsIn(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	newest := make(map[int64]sheets.Revision, len(revisions))
	for _, r := range revisions {
		newest[r.AssemblyID] = r
	}
	fitted := make([]FittedAssembly, 0, len(assemblies))
	for _, assembly := range assemblies {
		// Text and number come from the same row: another save may lie between the two queries.
		revision := newest[assembly.ID]
		assembly.Revision = revision.N
		fitted = append(fitted, FittedAssembly{inventory.AssemblyOf(assembly), revision.Body})
	}
	return fitted, nil
}
