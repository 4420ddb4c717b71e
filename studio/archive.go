package studio

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"math"
	"slices"
	"strings"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/text"
	"gyrophane/files"
	"gyrophane/store"
)

// NightsKept is how many days the copies of a night are usually kept: so long may they hold what was deleted since.
const NightsKept = 14

// How large a backup may be that is taken in, and a piece of it that is sent.
const (
	MostArchiveBytes = store.MostArchiveBytes
	PieceBytes       = store.PieceBytes
)

// Backup writes all that is kept of a painter as one file.
func (s *Studio) Backup(ctx context.Context, painter store.Painter, to io.Writer) error {
	return s.store.Backup(ctx, painter.ID, to)
}

// Belongings count what is kept of a painter.
type Belongings = store.Belongings

// Belongings counts what is kept of a painter.
func (s *Studio) Belongings(ctx context.Context, painter store.Painter) (Belongings, error) {
	return s.store.Belongings(ctx, painter.ID)
}

// Progress is how far something long is: so many of so many.
type Progress func(done, of int)

// RestoreBackup reads a backup, holds all that it says against what a request might say, and takes it into what is
// kept of a painter: all or nothing, and only if keep; otherwise it is said what would become of it. The error is an
// input.Error, or what the store answers.
func (s *Studio) RestoreBackup(ctx context.Context, painter store.Painter, from io.ReaderAt, size int64, keep bool, said Progress) (store.Restored, error) {
	if said == nil {
		said = func(int, int) {}
	}
	a, err := store.OpenArchive(from, size)
	if err != nil {
		return store.Restored{}, err
	}
	var photos []store.SittingPhoto
	for i := range a.Sittings {
		photos = append(photos, a.Sittings[i].Photos...)
	}
	if err := s.checkArchive(ctx, painter, &a.Archive); err != nil {
		return store.Restored{}, err
	}
	for i, p := range photos {
		if err := checkPhoto(ctx, a, p); err != nil {
			return store.Restored{}, err
		}
		said(i+1, len(photos))
	}
	out, err := s.store.Restore(ctx, painter.ID, &a.Archive, store.RestoreHow{
		Keep: keep, Said: said,
		Photo: a.Photo,
		Ended: overNow,
	})
	return out, err
}

// overNow says whether a sitting is over with all that was told of it.
func overNow(plan store.SittingPlan, events []store.SittingEvent) (bool, error) {
	began, err := thaw(plan)
	if err != nil {
		return false, err
	}
	stands := bench.Fold(began.Sheet, began.Settings, happened(events))
	return !stands.Ended.IsZero(), nil
}

// checkPhoto holds a photo of a backup against what a photo may be, and against what is said of it.
func checkPhoto(ctx context.Context, a *store.ReadArchive, p store.SittingPhoto) error {
	data, err := a.Photo(p.UID)
	if err != nil {
		return err
	}
	plain, w, h, err := files.PlainJPEG(ctx, data)
	switch {
	case err != nil:
		return input.Errorf("a photo of the backup: %w", err)
	case !bytes.Equal(plain, data):
		return input.Errorf("a photo of the backup holds more than its pixels, or is larger than photos are kept: it was not written by Gyrophane")
	case p.Width != w || p.Height != h:
		return input.Errorf("a photo of the backup has %d by %d pixels, and not the %d by %d that are said of it", w, h, p.Width, p.Height)
	}
	return nil
}

// checkArchive holds what an archive says against what a request might say.
func (s *Studio) checkArchive(ctx context.Context, painter store.Painter, a *store.Archive) error {
	at := func(what string, err error) error {
		if err == nil {
			return nil
		}
		return input.Errorf("%s: %w", what, err)
	}
	for _, c := range a.Changes {
		if _, err := text.Line("what was done to the box", c.Summary, longestSummary); err != nil {
			return at("the backup", err)
		}
	}
	for i := range a.Tubes {
		if err := checkTube(&a.Tubes[i]); err != nil {
			return at("a tube of the backup", err)
		}
	}
	for i := range a.Wheels {
		w := &a.Wheels[i]
		if err := s.checkWheel(ctx, painter, w); err != nil {
			return at("the wheel "+input.Clip(w.Name), err)
		}
	}
	for i := range a.Sittings {
		one := &a.Sittings[i]
		if err := checkSitting(one); err != nil {
			return at("the sitting "+input.Clip(one.Name), err)
		}
		if err := ctx.Err(); err != nil {
			return err
		}
	}
	for i := range a.Takings {
		if err := checkTaking(&a.Takings[i].Taking); err != nil {
			return at("strengths that were taken", err)
		}
	}
	return at("the backup", checkRest(a))
}

// The longest lines of what only the program writes.
const (
	longestSummary = 200
	longestKey     = 400
	longestTold    = 64
)

func checkTube(t *store.ArchivedTube) error {
	if _, err := t.Definition.Graded("", paint.Grade(t.Grade)); err != nil {
		return err
	}
	if t.Definition.Library == "" {
		if name, err := text.Line("the name", t.Definition.Name, paint.LongestNickname); err != nil || name == "" {
			return input.Errorf("it has no name that can be one")
		}
	}
	contents := []store.TubeContent{t.TubeContent}
	for _, v := range t.Versions {
		contents = append(contents, v.Content)
	}
	for _, c := range contents {
		if _, err := c.Details().Check(); err != nil {
			return err
		}
	}
	return nil
}

func (s *Studio) checkWheel(ctx context.Context, painter store.Painter, w *store.ArchivedWheel) error {
	contents := []store.WheelContent{w.WheelContent}
	for _, v := range w.Versions {
		contents = append(contents, v.WheelContent)
	}
	for _, c := range contents {
		if err := s.checkContent(ctx, painter, c); err != nil {
			return err
		}
	}
	for _, p := range w.Predictions {
		if _, err := journal.ParsePrediction(p.HueWord, p.Verdict); err != nil {
			return input.Sentence(err)
		}
		if err := checkLines(longestKey, p.Outcome.Name, p.Outcome.HueWord, p.Outcome.Verdict); err != nil {
			return err
		}
	}
	for _, p := range w.Printed {
		if err := checkLines(longestKey, p.Sheet, p.Mark); err != nil {
			return err
		}
	}
	return nil
}

// checkContent holds a wheel's content against what a painter may decide, its paints being those that came with it.
func (s *Studio) checkContent(ctx context.Context, painter store.Painter, c store.WheelContent) error {
	if _, err := store.CleanName("wheel", c.Name); err != nil {
		return input.Sentence(err)
	}
	if c.Kind != string(c.Snapshot.System.Kind) {
		return input.Errorf("it is of two kinds")
	}
	if c.Snapshot.System.Names(func(id string) bool {
		_, there := c.Snapshot.Frozen[id]
		return strings.HasPrefix(id, paint.TubePrefix) && !there
	}) {
		return input.Errorf("it names a tube of which it says nothing")
	}
	for id, t := range c.Snapshot.Frozen {
		if err := checkFrozen(id, t); err != nil {
			return err
		}
	}
	_, err := s.content(ctx, painter, WheelContentOf(c), &c)
	return err
}

// checkFrozen says what is wrong with a paint as it was kept with a wheel or a sitting.
func checkFrozen(id string, t store.FrozenTube) error {
	if !strings.HasPrefix(id, paint.TubePrefix) && t.Definition.Library != id {
		return input.Errorf("%s stands for another paint", input.Clip(id))
	}
	_, err := t.Definition.Paint(id, t.Strength)
	return err
}

// checkSheet says what is wrong with the plan of a sitting, and restores it.
func checkSheet(p store.SittingPlan) (*bench.Plan, error) {
	sheet := p.Sheet
	if err := bench.CheckPlan(&sheet, p.Fill, p.Order); err != nil {
		return nil, err
	}
	if !(p.Film >= 0.05 && p.Film <= 20) {
		return nil, input.Errorf("paint is laid 0.05 to 20 times as thick as usual, and not %v times", p.Film)
	}
	if len(p.Recipes) != len(sheet.Regions) || len(p.Paints) > bench.MostRegions {
		return nil, input.Errorf("it has %d recipes for %d places", len(p.Recipes), len(sheet.Regions))
	}
	for _, r := range p.Recipes {
		if err := checkParts(r, true); err != nil {
			return nil, err
		}
	}
	for id, t := range p.Paints {
		if err := checkFrozen(id, t); err != nil {
			return nil, err
		}
	}
	if err := checkLines(longestSummary*2, p.Why); err != nil {
		return nil, err
	}
	return thaw(p)
}

func checkParts(parts []store.KeptPart, mixed bool) error {
	if len(parts) == 0 || len(parts) > bench.MostTaken {
		return input.Errorf("a recipe has 1 to %d paints, and not %d", bench.MostTaken, len(parts))
	}
	for _, p := range parts {
		if !(p.Parts > 0 && p.Parts <= 1e6) || p.Thin < 0 || p.Thin > 999 || (p.In == "") != (p.Thin == 0) || len(p.Of) > 0 && !mixed {
			return input.Errorf("a recipe with %v parts of %s cannot be", p.Parts, input.Clip(p.Paint))
		}
		if err := checkLines(longestKey, p.Paint, p.Name); err != nil {
			return err
		}
		if len(p.Of) > 0 {
			if err := checkParts(p.Of, false); err != nil {
				return err
			}
		}
	}
	return nil
}

func checkLines(most int, lines ...string) error {
	for _, one := range lines {
		if _, err := text.Line("a word", one, most); err != nil {
			return input.Wrap(err)
		}
	}
	return nil
}

// checkSitting says what is wrong with a sitting that came in a file.
func checkSitting(a *store.ArchivedSitting) error {
	plan, err := checkSheet(a.Plan)
	if err != nil {
		return err
	}
	if err := checkLines(longestSummary, a.Name); err != nil {
		return err
	}
	if _, err := text.Lines("what to do next time", a.NextTime, bench.LongestNote); err != nil {
		return input.Wrap(err)
	}
	for _, e := range a.Events {
		one := e.Event
		one.ID, one.At = e.EventID, e.At
		if err := one.Check(plan.Sheet); err != nil {
			return err
		}
		if err := checkLines(longestDevice, e.Device, e.EventID, one.Tap, one.Undoes); err != nil {
			return err
		}
	}
	for _, r := range a.Readings {
		if err := checkRead(plan, r); err != nil {
			return err
		}
	}
	return nil
}

func checkRead(plan *bench.Plan, r store.SittingReading) error {
	in, err := paint.ParseMedium(r.Medium)
	if err != nil {
		return input.Wrap(err)
	}
	if plan.Sheet.Find(r.Region) < 0 {
		return input.Errorf("there is no place %q on the sheet", input.Clip(r.Region))
	}
	if !slices.Contains(paint.Sources, paint.Source(r.Source)) {
		return input.Errorf("a reading by %q is not known", input.Clip(r.Source))
	}
	sound, err := paint.LabReading(colour.Lab{L: r.L, A: r.A, B: r.B}, paint.Source(r.Source), r.Wet, in)
	if err == nil && len(r.Spectrum) > 0 {
		if len(r.Spectrum) != colour.Bands {
			return input.Errorf("a spectrum has %d values, and not %d", colour.Bands, len(r.Spectrum))
		}
		_, err = paint.SpectrumReading(colour.Spectrum(r.Spectrum), paint.Source(r.Source), r.Wet, in)
	}
	if err != nil {
		return input.Wrap(err)
	}
	one := journal.Reading{Region: r.Region, Reading: sound, Minutes: r.Minutes, Spread: r.Spread, Doubt: r.Doubt}
	if err := one.Check(); err != nil {
		return err
	}
	if err := checkLines(longestTold, r.Told); err != nil {
		return err
	}
	return checkOnPhoto(r.OnPhoto)
}

func checkTaking(t *store.Taking) error {
	if _, err := paint.ParseMedium(t.Medium); err != nil {
		return input.Wrap(err)
	}
	for _, s := range t.Strengths {
		if !(s.Low > 0 && s.Low <= s.High) || math.IsInf(s.High, 0) || s.Strength != paint.BoundedStrength(s.Strength) || !(s.Was > 0) || math.IsInf(s.Was, 0) {
			return input.Errorf("a strength of %v, from %v to %v, cannot be", s.Strength, s.Low, s.High)
		}
		if k := s.Known; k != nil && (k.Place < 0 || k.Place >= certainty.MostJoint || len(k.Off) > certainty.MostUnknown || len(k.Covariance) > certainty.MostUnknown || slices.ContainsFunc(k.Covariance, func(row []float64) bool { return len(row) > certainty.MostUnknown })) {
			return input.Errorf("what is known of a strength is too much")
		}
		if err := checkLines(longestTold, s.Library); err != nil {
			return err
		}
	}
	return nil
}

// checkRest is about practice, marks, wanted colours and comparisons.
func checkRest(a *store.Archive) error {
	for _, r := range a.Rounds {
		if _, err := path.ParseSpacing(r.Spacing); err != nil {
			return input.Wrap(err)
		}
		if len(r.Pairs) > journal.RoundLength {
			return input.Errorf("a round of practice has %d pairings at most", journal.RoundLength)
		}
		for _, c := range r.Pairs {
			if err := checkNamed(c.A, c.B); err != nil {
				return err
			}
		}
	}
	for _, g := range a.Guesses {
		if _, err := journal.ParseGuess(g.Said.HueWord, g.Said.Verdict, g.Said.Mud.Nowhere, g.Said.Mud.At); err != nil {
			return input.Wrap(err)
		}
		if err := checkNamed(g.A, g.B); err != nil {
			return err
		}
		if err := checkLines(longestKey, g.Key, g.Section, g.Outcome.Section, g.Outcome.Spacing, g.Outcome.HueWord, g.Outcome.Verdict); err != nil {
			return err
		}
		if g.Place < 0 || g.Place >= journal.RoundLength || g.OutOf > 100 {
			return input.Errorf("a guess stands at no place of a round, or won what cannot be won")
		}
	}
	for _, m := range a.Marks {
		if err := checkNamed(m.A, m.B); err != nil {
			return err
		}
	}
	for _, w := range a.Wanted {
		if err := (reach.Wanted{Name: w.Name, Colour: w.Colour}).Check(); err != nil {
			return err
		}
	}
	for _, c := range a.Comparisons {
		if err := c.Check(); err != nil {
			return err
		}
		if err := checkLines(longestTold, c.Told); err != nil {
			return err
		}
	}
	return nil
}

// checkNamed says whether paints of the library that are named are there; tubes are looked up where they are taken in.
func checkNamed(ids ...string) error {
	for _, id := range ids {
		if strings.HasPrefix(id, paint.TubePrefix) {
			continue
		}
		if _, err := paint.Find(id); err != nil {
			return err
		}
	}
	return nil
}

// BackupName is what a backup of a day is called when it is saved.
func BackupName(of store.Painter, day time.Time) string {
	return fmt.Sprintf("gyrophane-%s-%s.zip", PlainName(of.Name), day.Format(time.DateOnly))
}

// PlainName is a name as a file may have it everywhere.
func PlainName(name string) string {
	plain := strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' {
			return r
		}
		return '-'
	}, name)
	return strings.Trim(plain, "-")
}
