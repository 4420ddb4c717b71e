package store

import (
	"archive/zip"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"io"
	"maps"
	"reflect"
	"regexp"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm/schema"

	"gyrophane/core/input"
)

// The limits of an archive.
const (
	MostArchiveBytes = 640 << 20 // as it is sent
	mostRowBytes     = 256 << 20 // of all rows, unpacked
	mostEntryBytes   = 64 << 20  // of one entry of rows, unpacked
	mostPhotoBytes   = 24 << 20  // of one photo
	mostEntries      = 2*mostSittings + mostWheels + mostSittings*mostPhotos
	mostDirectory    = 150 * mostEntries // bytes in which they are listed
)

// ReadArchive is an archive that is read: what it holds, and the photos that are read when they are
// asked for.
type ReadArchive struct {
	Archive
	files map[string]*zip.File
	sums  map[string]entryFile
}

const uid = `[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}`

var (
	uidShape   = regexp.MustCompile(`^` + uid + `$`)
	entryShape = regexp.MustCompile(`^(?:(wheels|sittings)/(` + uid + `)\.json|photos/(?:` + uid + `)\.jpg)$`)
)

// fixed are the entries of rows that every archive has.
var fixed = []string{boxEntry, strengthsEntry, practiceEntry, wantedEntry, comparisonsEntry}

// OpenArchive reads an archive, but for its photos, and looks whether all of it is there, as it was written;
// whether what it holds can be is not looked at. The error is an input.Error.
func OpenArchive(from io.ReaderAt, size int64) (*ReadArchive, error) {
	if size > MostArchiveBytes {
		return nil, input.Errorf("the backup has %d MB; %d MB are read at most", size>>20, MostArchiveBytes>>20)
	}
	directory := &bounded{from: from, left: mostDirectory}
	z, err := zip.NewReader(directory, size)
	if directory.left < 0 {
		return nil, input.Errorf("the backup has more entries than the %d that are read at most", mostEntries)
	}
	if err != nil {
		return nil, input.Errorf("this is no whole backup: it is not a zip file, or its end is missing; save it again, or take another one")
	}
	directory.free = true
	if len(z.File) > mostEntries {
		return nil, input.Errorf("the backup has %d entries, and %d are read at most", len(z.File), mostEntries)
	}
	out := &ReadArchive{files: map[string]*zip.File{}, sums: map[string]entryFile{}}
	for _, f := range z.File {
		if out.files[f.Name] != nil {
			return nil, input.Errorf("the backup holds %q twice", input.Clip(f.Name))
		}
		out.files[f.Name] = f
	}
	if err := out.manifest(); err != nil {
		return nil, err
	}
	left := int64(mostRowBytes)
	for _, name := range slices.Sorted(maps.Keys(out.sums)) {
		if strings.HasPrefix(name, "photos/") {
			continue
		}
		data, err := out.entry(name, min(mostEntryBytes, left))
		if err != nil {
			return nil, err
		}
		left -= int64(len(data))
		if err := out.take(name, data); err != nil {
			return nil, err
		}
	}
	return out, out.whole()
}

// bounded reads so many bytes and no more, until it is free: what a zip file says of its entries is read before they
// can be counted.
type bounded struct {
	from io.ReaderAt
	left int64
	free bool
}

// ReadAt is for io.ReaderAt.
func (b *bounded) ReadAt(into []byte, at int64) (int, error) {
	if !b.free {
		if b.left -= int64(len(into)); b.left < 0 {
			return 0, io.ErrUnexpectedEOF
		}
	}
	return b.from.ReadAt(into, at)
}

// manifest reads what the archive says of itself, and holds it against what is there.
func (a *ReadArchive) manifest() error {
	if a.files[manifestEntry] == nil {
		return input.Errorf("this is no backup: the zip file has no %s", manifestEntry)
	}
	data, err := a.unpacked(manifestEntry, mostEntryBytes)
	if err != nil {
		return err
	}
	var m manifest
	if err := openFile(data, mostEntryBytes, "backup", archiveFormat, archiveVersion, &m); err != nil {
		return err
	}
	a.Made, a.Name, a.WarmBlue, a.OldBox = m.Made, m.Name, m.WarmBlue, m.OldBox
	for _, f := range m.Files {
		if !slices.Contains(fixed, f.Name) && !entryShape.MatchString(f.Name) {
			return input.Errorf("the backup holds %q, which is nothing of it", input.Clip(f.Name))
		}
		if _, twice := a.sums[f.Name]; twice || a.files[f.Name] == nil {
			return input.Errorf("the backup is not whole: %q is named and not there, or named twice", input.Clip(f.Name))
		}
		a.sums[f.Name] = f
	}
	for name := range a.files {
		if _, named := a.sums[name]; !named && name != manifestEntry {
			return input.Errorf("the backup holds %q, which its manifest does not name", input.Clip(name))
		}
	}
	for _, name := range fixed {
		if _, there := a.sums[name]; !there {
			return input.Errorf("the backup is not whole: it has no %s", name)
		}
	}
	return nil
}

// unpacked is an entry, of so many bytes at most, whatever it says of its size.
func (a *ReadArchive) unpacked(name string, most int64) ([]byte, error) {
	f := a.files[name]
	if f.UncompressedSize64 > uint64(most) {
		return nil, input.Errorf("%s is too large: it would unpack to %d MB", input.Clip(name), f.UncompressedSize64>>20)
	}
	r, err := f.Open()
	if err != nil {
		return nil, input.Errorf("%s cannot be unpacked", input.Clip(name))
	}
	defer r.Close()
	data, err := io.ReadAll(io.LimitReader(r, most+1))
	switch {
	case err != nil:
		return nil, input.Errorf("%s is damaged: it cannot be unpacked to its end", input.Clip(name))
	case int64(len(data)) > most:
		return nil, input.Errorf("%s is too large: it unpacks to more than %d MB", input.Clip(name), most>>20)
	}
	return data, nil
}

// entry is an entry as it was written.
func (a *ReadArchive) entry(name string, most int64) ([]byte, error) {
	data, err := a.unpacked(name, most)
	if err != nil {
		return nil, err
	}
	sum := sha256.Sum256(data)
	if want := a.sums[name]; hex.EncodeToString(sum[:]) != strings.ToLower(want.SHA256) || int64(len(data)) != want.Bytes {
		return nil, input.Errorf("%s is not as it was written: its checksum is another; take another copy of the backup", input.Clip(name))
	}
	return data, nil
}

// Photo is a photo of the archive, by its lasting id. The error is an input.Error.
func (a *ReadArchive) Photo(uid string) ([]byte, error) {
	return a.entry(photoEntry(uid), mostPhotoBytes)
}

// take takes the rows of an entry.
func (a *ReadArchive) take(name string, data []byte) error {
	var rows tables
	if err := json.Unmarshal(data, &rows); err != nil {
		return input.Errorf("%s cannot be understood: %s", input.Clip(name), strings.TrimPrefix(err.Error(), "json: "))
	}
	err := a.taken(name, rows)
	var at input.Error
	if err != nil && !errors.As(err, &at) {
		return input.Errorf("%s: %w", input.Clip(name), err)
	}
	return err
}

func (a *ReadArchive) taken(name string, rows tables) (err error) {
	switch name {
	case boxEntry:
		return a.takeBox(rows)
	case strengthsEntry:
		return a.takeStrengths(rows)
	case practiceEntry:
		return a.takePractice(rows)
	case wantedEntry:
		a.Wanted, err = opened[WantedColour](rows["wanted"])
		return err
	case comparisonsEntry:
		for _, r := range rows["comparisons"] {
			var one ArchivedComparison
			if one.Vector, one.Beside, err = openRow(r, &one.Comparison); err != nil {
				return err
			}
			a.Comparisons = append(a.Comparisons, one)
		}
		return nil
	}
	of := entryShape.FindStringSubmatch(name)
	if of[1] == "wheels" {
		return a.takeWheel(of[2], rows)
	}
	return a.takeSitting(of[2], rows)
}

func (a *ReadArchive) takeBox(rows tables) (err error) {
	if a.Changes, err = opened[BoxChange](rows["changes"]); err != nil {
		return err
	}
	at := map[int64]int{}
	for i, r := range rows["tubes"] {
		var one ArchivedTube
		if one.Vector, _, err = openRow(r, &one.Tube); err != nil {
			return err
		}
		at[one.ID] = i
		a.Tubes = append(a.Tubes, one)
	}
	versions, err := opened[TubeVersion](rows["versions"])
	for _, v := range versions {
		i, there := at[v.TubeID]
		if !there {
			return input.Errorf("%s: a version is of no tube", boxEntry)
		}
		a.Tubes[i].Versions = append(a.Tubes[i].Versions, v)
	}
	return err
}

func (a *ReadArchive) takeWheel(uid string, rows tables) (err error) {
	var one ArchivedWheel
	if len(rows["wheel"]) != 1 {
		return input.Errorf("it holds %d wheels", len(rows["wheel"]))
	}
	if one.Vector, one.Beside, err = openRow(rows["wheel"][0], &one.Wheel); err != nil {
		return err
	}
	if one.UID != uid {
		return input.Errorf("it holds another wheel than its name says")
	}
	if one.Versions, err = opened[WheelVersion](rows["versions"]); err != nil {
		return err
	}
	if one.Predictions, err = opened[Prediction](rows["predictions"]); err != nil {
		return err
	}
	one.Printed, err = opened[PrintedPlan](rows["printed"])
	a.Wheels = append(a.Wheels, one)
	return err
}

// takeSitting takes a sitting of a lasting id, or of whichever where that is empty.
func (a *ReadArchive) takeSitting(uid string, rows tables) (err error) {
	var one ArchivedSitting
	if len(rows["sitting"]) != 1 {
		return input.Errorf("it holds %d sittings", len(rows["sitting"]))
	}
	if one.Vector, _, err = openRow(rows["sitting"][0], &one.Sitting); err != nil {
		return err
	}
	if uid != "" && one.UID != uid {
		return input.Errorf("it holds another sitting than its name says")
	}
	if one.Events, err = opened[SittingEvent](rows["events"]); err != nil {
		return err
	}
	if one.Readings, err = opened[SittingReading](rows["readings"]); err != nil {
		return err
	}
	one.Photos, err = opened[SittingPhoto](rows["photos"])
	a.Sittings = append(a.Sittings, one)
	return err
}

func (a *ReadArchive) takeStrengths(rows tables) (err error) {
	at := map[int64]int{}
	for i, r := range rows["takings"] {
		var one ArchivedTaking
		if one.Vector, _, err = openRow(r, &one.Taking); err != nil {
			return err
		}
		at[one.ID] = i
		a.Takings = append(a.Takings, one)
	}
	strengths, err := opened[TakenStrength](rows["strengths"])
	for _, s := range strengths {
		i, there := at[s.TakingID]
		if !there {
			return input.Errorf("%s: a strength is of no taking", strengthsEntry)
		}
		a.Takings[i].Strengths = append(a.Takings[i].Strengths, s)
	}
	return err
}

func (a *ReadArchive) takePractice(rows tables) (err error) {
	if a.Rounds, err = opened[Round](rows["rounds"]); err != nil {
		return err
	}
	if a.Guesses, err = opened[PairGuess](rows["guesses"]); err != nil {
		return err
	}
	for _, r := range rows["marks"] {
		var one ArchivedMark
		if one.Vector, _, err = openRow(r, &one.PairMark); err != nil {
			return err
		}
		a.Marks = append(a.Marks, one)
	}
	return nil
}

// whole looks whether what is named inside is inside.
func (a *ReadArchive) whole() error {
	photos := map[string]bool{}
	for i := range a.Sittings {
		for _, p := range a.Sittings[i].Photos {
			if _, there := a.sums[photoEntry(p.UID)]; !there || photos[p.UID] {
				return input.Errorf("the backup is not whole: the photo %s is not there, or of two sittings", p.UID)
			}
			photos[p.UID] = true
		}
	}
	for name := range a.sums {
		if uid, is := strings.CutPrefix(name, "photos/"); is && !photos[strings.TrimSuffix(uid, ".jpg")] {
			return input.Errorf("the backup holds %q, which is of no sitting", input.Clip(name))
		}
	}
	// What is known by an id is so once.
	for _, err := range []error{
		once("change", a.Changes, func(c BoxChange) string { return c.UID }), once("tube", a.Tubes, func(t ArchivedTube) string { return t.UID }),
		once("wheel", a.Wheels, func(w ArchivedWheel) string { return w.UID }), once("sitting", a.Sittings, func(s ArchivedSitting) string { return s.UID }),
		once("taking", a.Takings, func(t ArchivedTaking) string { return t.UID }), once("round", a.Rounds, func(r Round) string { return r.UID }),
		once("guess", a.Guesses, func(g PairGuess) string { return g.UID }), once("wanted colour", a.Wanted, func(w WantedColour) string { return w.UID }),
		once("comparison", a.Comparisons, func(c ArchivedComparison) string { return c.UID }),
	} {
		if err != nil {
			return err
		}
	}
	for i := range a.Tubes {
		if err := once("version of a tube", a.Tubes[i].Versions, func(v TubeVersion) string { return v.UID }); err != nil {
			return err
		}
	}
	for i := range a.Wheels {
		w := &a.Wheels[i]
		err := once("version of a wheel", w.Versions, func(v WheelVersion) string { return v.UID })
		if err == nil {
			err = once("prediction", w.Predictions, func(p Prediction) string { return p.UID })
		}
		if err != nil {
			return err
		}
	}
	var readings []SittingReading
	for i := range a.Sittings {
		readings = append(readings, a.Sittings[i].Readings...)
	}
	return once("reading", readings, func(r SittingReading) string { return r.UID })
}

// once says what is there twice, or goes by no id.
func once[T any](what string, all []T, uid func(T) string) error {
	seen := map[string]bool{}
	for _, one := range all {
		id := uid(one)
		if !uidShape.MatchString(id) || seen[id] {
			return input.Errorf("the backup holds a %s twice, or one that goes by no id", what)
		}
		seen[id] = true
	}
	return nil
}

// opened are rows of one table.
func opened[T any](rows []row) (out []T, err error) {
	for _, r := range rows {
		var one T
		if _, _, err := openRow(r, &one); err != nil {
			return nil, err
		}
		out = append(out, one)
	}
	return out, nil
}

// openRow reads a row by its columns, which must be those of its table, as the database would; with the
// count of its changes and what it is beside, where the table has those.
func openRow(r row, into any) (vector VersionVector, beside string, err error) {
	of, err := shapeOf(into)
	if err != nil {
		return nil, "", err
	}
	for column, raw := range r {
		switch column {
		case "version_vector":
			if err := json.Unmarshal(raw, &vector); err != nil || !countable(vector) {
				return nil, "", input.Errorf("%s: its count of changes cannot be", of.Table)
			}
			continue
		case "beside_of":
			var uid *string
			if err := json.Unmarshal(raw, &uid); err != nil || uid != nil && !uidShape.MatchString(*uid) {
				return nil, "", input.Errorf("%s: what it is beside cannot be", of.Table)
			}
			if uid != nil {
				beside = *uid
			}
			continue
		}
		if string(raw) == "null" {
			continue
		}
		field := of.FieldsByDBName[column]
		if field == nil || column == "painter_id" {
			return nil, "", input.Errorf("%s: nothing is known here of %q", of.Table, input.Clip(column))
		}
		if err := openColumn(field, raw, into); err != nil {
			return nil, "", input.Errorf("%s: %q cannot be read: %w", of.Table, column, err)
		}
	}
	return vector, beside, nil
}

func openColumn(field *schema.Field, raw json.RawMessage, into any) error {
	ctx, row := context.Background(), reflect.ValueOf(into).Elem()
	if field.Serializer != nil {
		return field.Serializer.Scan(ctx, field, row, []byte(raw))
	}
	value := reflect.New(field.FieldType)
	if err := json.Unmarshal(raw, value.Interface()); err != nil {
		return err
	}
	if at, is := value.Interface().(*time.Time); is {
		*at = at.UTC()
	}
	return field.Set(ctx, row, value.Elem().Interface())
}

// countable says whether a count of changes can be one.
func countable(v VersionVector) bool {
	if len(v) > 1000 {
		return false
	}
	for who, n := range v {
		if !uidShape.MatchString(who) || n < 0 || n > 1<<40 {
			return false
		}
	}
	return true
}
