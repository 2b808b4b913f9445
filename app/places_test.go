package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
)

// A place that is renamed takes the places in it along; what stands there is found by the new name, by viewers, too.
func TestAPlaceIsRenamedWithWhatLiesInIt(t *testing.T) {
	_, actions := newApp(t)
	add := func(accession, place string) inventory.Machine {
		return must(actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Accession: accession, Name: "Meridian", Place: place}))
	}
	add("EH-1", "Loft")
	add("EH-2", "Loft, shelf 3")
	add("EH-3", "Lofty hall") // is another place
	must(actions.Inventory.AddLooseAssembly(ctx, curator, "Loft, shelf 3, box 1", assemblyOf("Card")))
	private(t, actions, "Jory Penhallow", "a former pilot")
	found := func(actor action.Actor, words string) int {
		return must(actions.Inventory.Find(ctx, actor, words)).Total
	}
	event, err := actions.Inventory.RenamePlace(ctx, curator, " Loft ", "Attic of Jory Penhallow")
	require.NoError(t, err)
	require.Equal(t, []string{"Attic of Jory Penhallow", "Attic of Jory Penhallow, shelf 3",
		"Attic of Jory Penhallow, shelf 3, box 1", "Lofty hall"}, must(actions.Inventory.Places(ctx, curator)))
	require.Equal(t, []int{2, 1, 2, 0}, []int{found(curator, "attic"), found(curator, "loft"),
		found(viewer, "former pilot"), found(viewer, "penhallow")})
	page := must(actions.Inventory.ListMachines(ctx, curator, inventory.MachineList{Limit: 9, Sort: "accession"}))
	require.Equal(t, "Attic of Jory Penhallow, shelf 3", page.Machines[1].Place)

	var invalid *action.Invalid
	for _, names := range [][2]string{{"Loft", "Cellar"}, {"Lofty hall", "Attic of Jory Penhallow"},
		{"Lofty hall", ""}, {"Lofty hall", "Lofty hall"}, {"Lofty hall", "a\x00b"}} {
		_, err := actions.Inventory.RenamePlace(ctx, curator, names[0], names[1])
		require.ErrorAs(t, err, &invalid, names)
	}
	_, err = actions.Inventory.RenamePlace(ctx, technician, "Lofty hall", "Cellar")
	require.ErrorIs(t, err, action.ErrForbidden)
	require.NoError(t, actions.History.Undo(ctx, curator, event))
	require.Equal(t, []int{0, 3}, []int{found(curator, "attic"), found(viewer, "loft")})

	// A building of which only rooms are written down can be renamed, too.
	add("EH-4", "Mill, room 2")
	_, err = actions.Inventory.RenamePlace(ctx, curator, "Lofty hall", "Mill")
	require.ErrorAs(t, err, &invalid, "it is in the list, too")
	must(actions.Inventory.RenamePlace(ctx, curator, "Mill", "Old mill"))
	require.Equal(t, 1, found(viewer, "old mill"))
}
