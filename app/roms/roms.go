package roms

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"sync"

	"frugalheron/app/action"
	appinventory "frugalheron/app/inventory"
	"frugalheron/core/device"
	"frugalheron/core/rom"
	"frugalheron/store/blobs"
	"frugalheron/store/inventory"
	"frugalheron/store/roms"
)

// RomSocket is a socket for a read-only memory, with what was read there.
type RomSocket struct {
	AssemblyID int64       `json:"assemblyId"`
	Assembly   string      `json:"assembly" says:"text"`
	Designator string      `json:"designator"`
	Line       int         `json:"line" doc:"Of the sheet; 0 where no line of it names a read-only memory any more"`
	Marking    string      `json:"marking"`
	Device     *rom.Device `json:"device" doc:"By the sheet; null when its size is not known"`
	Chip       rom.Chip    `json:"chip"`
	Image      *RomImage   `json:"image" doc:"The content that counts, else the newest; null when nothing was read"`
	Reads      []RomRead   `json:"reads" doc:"The oldest first"`
	Mismatches []string    `json:"mismatches" doc:"What does not fit together: the label, the device, the same board in another machine"`
}

// Roms lists the sockets for read-only memories of a machine.
func (s *Service) Roms(ctx context.Context, actor action.Actor, machineID int64) ([]RomSocket, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	assemblies, err := appinventory.AssembliesOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, err
	}
	return s.romSockets(ctx, assemblies)
}

// ReadsOf lists what was read of the chips of boards, the oldest first.
func (s *Service) ReadsOf(ctx context.Context, assemblies []int64) ([]roms.RomRead, error) {
	return action.Once(ctx, fmt.Sprint("readings of ", assemblies), 0, func() ([]roms.RomRead, error) {
		return roms.RomReadsOf(ctx, s.kernel.Reader(ctx), assemblies)
	})
}

func (s *Service) romSockets(ctx context.Context, assemblies []inventory.Assembly) ([]RomSocket, error) {
	ids := make([]int64, len(assemblies))
	for i, assembly := range assemblies {
		ids[i] = assembly.ID
	}
	lines, err := roms.RomSocketsOf(ctx, s.kernel.Reader(ctx), ids, romClasses())
	if err != nil {
		return nil, err
	}
	reads, err := s.ReadsOf(ctx, ids)
	if err != nil {
		return nil, err
	}
	library, err := s.library.Read(ctx)
	if err != nil {
		return nil, err
	}
	sockets := []RomSocket{}
	for _, assembly := range assemblies {
		sockets = append(sockets, socketsOf(assembly, library, lines, reads)...)
	}
	for i := range sockets {
		if err := s.judgeSocket(ctx, &sockets[i]); err != nil {
			return nil, err
		}
	}
	return sockets, nil
}

// romClasses names the classes of read-only memories.
func romClasses() []string {
	classes := []string{}
	for _, class := range device.Classes() {
		if class.IsROM() {
			classes = append(classes, string(class))
		}
	}
	return classes
}

// socketsOf lists those that the sheet names, then those where something was read that it names no more.
func socketsOf(assembly inventory.Assembly, library *device.Library, lines []roms.RomSocket,
	reads []roms.RomRead) []RomSocket {
	sockets := []RomSocket{}
	add := func(s RomSocket) {
		s.AssemblyID, s.Assembly, s.Mismatches, s.Reads = assembly.ID, assembly.Title, []string{}, []RomRead{}
		for _, r := range reads {
			if r.AssemblyID == assembly.ID && r.Designator == s.Designator {
				s.Reads = append(s.Reads, romReadOf(r))
			}
		}
		sockets = append(sockets, s)
	}
	has := func(designator string) bool {
		return slices.ContainsFunc(sockets, func(s RomSocket) bool { return s.Designator == designator })
	}
	for _, line := range lines {
		if line.AssemblyID != assembly.ID {
			continue
		}
		var of *rom.Device
		if t, ok := library.Lookup(line.TypeNumber); ok && t.ImageBytes() > 0 {
			of = &rom.Device{Number: t.Number, Bytes: t.ImageBytes()}
		}
		for _, designator := range strings.Fields(line.Designators) {
			if !has(designator) {
				add(RomSocket{Designator: designator, Line: line.Line, Marking: line.Marking, Device: of})
			}
		}
	}
	for _, r := range reads {
		if r.AssemblyID == assembly.ID && !has(r.Designator) {
			add(RomSocket{Designator: r.Designator})
		}
	}
	return sockets
}

func (s *Service) judgeSocket(ctx context.Context, socket *RomSocket) error {
	reads := make([]rom.Read, len(socket.Reads))
	for i, r := range socket.Reads {
		reads[i] = rom.Read{SHA256: r.SHA256, On: r.ReadOn, Exception: r.Exception}
	}
	var err error
	socket.Chip, err = rom.JudgeReads(reads, func(earlier, later string) (rom.Comparison, error) {
		return s.compareRoms(ctx, earlier, later)
	})
	if err != nil || len(reads) == 0 {
		return err
	}
	sum := socket.Chip.SHA256
	if sum == "" {
		sum = reads[len(reads)-1].SHA256
	}
	image, err := roms.RomBySHA(ctx, s.kernel.Reader(ctx), sum)
	if err != nil {
		return err
	}
	view := romImageOf(image)
	socket.Image = &view
	if socket.Device != nil && image.Bytes != socket.Device.Bytes {
		socket.Mismatches = append(socket.Mismatches,
			fmt.Sprintf("a %s holds %d bytes, the content has %d", socket.Device.Number, socket.Device.Bytes,
				image.Bytes))
	}
	if err := s.labelAgainst(ctx, socket, image); err != nil {
		return err
	}
	return s.siblingsAgainst(ctx, socket, image)
}

// labelAgainst compares the version on the chip with the one inside.
func (s *Service) labelAgainst(ctx context.Context, socket *RomSocket, image roms.RomImage) error {
	label := socket.Reads[len(socket.Reads)-1].Label
	onChip, inside, where := rom.VersionIn(label), strings.ToLower(image.Edition), "it is known as"
	if inside == "" {
		inspection, err := s.InspectionOf(ctx, image.SHA256)
		if err != nil {
			return err
		}
		for _, t := range inspection.Texts {
			if inside = rom.VersionIn(t.Text); inside != "" {
				where = "a text in it says"
				break
			}
		}
	}
	if onChip != "" && inside != "" && onChip != inside {
		socket.Mismatches = append(socket.Mismatches,
			fmt.Sprintf("the label says version %s, %s %s", onChip, where, inside))
	}
	return nil
}

// siblingsAgainst compares with the same socket of the same board elsewhere.
func (s *Service) siblingsAgainst(ctx context.Context, socket *RomSocket, image roms.RomImage) error {
	siblings, err := roms.Siblings(ctx, s.kernel.Reader(ctx), socket.AssemblyID, socket.Designator)
	if err != nil {
		return err
	}
	for _, other := range siblings {
		if other.SHA256 == image.SHA256 {
			continue
		}
		theirs, err := roms.RomBySHA(ctx, s.kernel.Reader(ctx), other.SHA256)
		if err != nil {
			return err
		}
		if theirs.Effective == image.Effective {
			continue
		}
		comparison, err := s.compareRoms(ctx, image.SHA256, other.SHA256)
		if err != nil {
			return err
		}
		where := other.Accession
		if where == "" {
			where = other.Assembly
		}
		socket.Mismatches = append(socket.Mismatches,
			fmt.Sprintf("%s holds another content in its %s, %s (%s)", where, other.Designator, RomName(theirs.Name, theirs.Edition, theirs.SHA256),
				comparison.Verdict))
	}
	return nil
}

// RomName says what an image is called: its name and version, else the start of its sum.
func RomName(name, edition, sum string) string {
	if name == "" {
		return "SHA-256 " + sum[:8]
	}
	return strings.TrimSpace(name + " " + edition)
}

// romBytes reads an image.
func (s *Service) romBytes(ctx context.Context, sum string) ([]byte, error) {
	if s.blobs == nil {
		return nil, action.Reject("file", "no store for images is set up; start the application with --blobs")
	}
	return s.blobs.Content(ctx, blobs.Roms, sum)
}

// comparisons keeps what was compared before: contents are named by their sums and never change.
type comparisons struct {
	mu    sync.Mutex
	known map[[2]string]rom.Comparison
}

// mostCompared bounds what is kept; more is thrown away and made anew.
const mostCompared = 2000

func (c *comparisons) of(pair [2]string, compare func() (rom.Comparison, error)) (rom.Comparison, error) {
	c.mu.Lock()
	known, ok := c.known[pair]
	c.mu.Unlock()
	if ok {
		return known, nil
	}
	made, err := compare()
	if err != nil {
		return made, err
	}
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.known == nil || len(c.known) >= mostCompared {
		c.known = map[[2]string]rom.Comparison{}
	}
	c.known[pair] = made
	return made, nil
}

func (s *Service) compareRoms(ctx context.Context, earlier, later string) (rom.Comparison, error) {
	return s.compared.of([2]string{earlier, later}, func() (rom.Comparison, error) {
		return s.compareBytes(ctx, earlier, later)
	})
}

func (s *Service) compareBytes(ctx context.Context, earlier, later string) (rom.Comparison, error) {
	one, err := s.romBytes(ctx, earlier)
	if err != nil {
		return rom.Comparison{}, err
	}
	two, err := s.romBytes(ctx, later)
	if err != nil {
		return rom.Comparison{}, err
	}
	return rom.Compare(one, two), nil
}

// InspectionOf reads what is in an image, by its sum.
func (s *Service) InspectionOf(ctx context.Context, sum string) (rom.Inspection, error) {
	var inspection rom.Inspection
	encoded, err := roms.RomInspection(ctx, s.kernel.Reader(ctx), sum)
	if err == nil {
		err = json.Unmarshal([]byte(encoded), &inspection)
	}
	return inspection, err
}
