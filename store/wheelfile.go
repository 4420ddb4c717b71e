package store

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"strings"

	"gorm.io/gorm"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

// WheelFile is a wheel as one file that another painter opens: its paints by reference, each that is not of
// today's library as it came into the wheel, and what is said of those that are tubes.
type WheelFile struct {
	Content WheelContent
	Tubes   map[string]CarriedTube // by the ids that they have in the wheel
}

// CarriedTube is what a file says of a tube besides its paint.
type CarriedTube struct {
	Nickname string   `json:"nickname,omitempty"`
	Grade    string   `json:"grade"`
	Learned  *Learned `json:"learned,omitempty"` // nil where it is as its grade has it
}

// Learned is a strength that readings told, with what it is in 95 of 100.
type Learned struct {
	Strength float64 `json:"strength"`
	Low      float64 `json:"low"`
	High     float64 `json:"high"`
}

// The format of a wheel in JSON, the version that is written, and how large it may be.
const (
	wheelFormat    = "gyrophane-wheel"
	wheelVersion   = 1
	MostWheelBytes = 1 << 20
	mostCarried    = 64 // paints
)

// wheelFile is the file: its system and settings are of the shapes that are kept.
type wheelFile struct {
	Format   string                 `json:"format"`
	Version  int                    `json:"version"`
	Library  string                 `json:"library"` // the version that library paints are of where nothing else is said
	Name     string                 `json:"name"`
	Paints   keptSnapshot           `json:"paints"`
	Settings keptSettings           `json:"settings"`
	Tubes    map[string]CarriedTube `json:"tubes"`
}

// Write is the file.
func (f WheelFile) Write() ([]byte, error) {
	c := f.Content
	out := wheelFile{Format: wheelFormat, Version: wheelVersion, Library: c.LibraryVersion, Name: c.Name, Paints: keepSnapshot(c.Snapshot), Settings: keepSettings(c.Settings), Tubes: f.Tubes}
	data, err := json.MarshalIndent(out, "", " ")
	if err != nil {
		return nil, fmt.Errorf("the wheel could not be written: %w", err)
	}
	return append(data, '\n'), nil
}

// openFile reads a file of JSON that is one thing of a format and a version, with no field that is not known, and no more
// than so many bytes. The error is an input.Error.
func openFile(data []byte, most int, what, format string, version int, into any) error {
	if len(data) > most {
		return input.Errorf("the %s has %d bytes, and %d are read at most", what, len(data), most)
	}
	var head struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if err := json.Unmarshal(data, &head); err != nil || head.Format != format {
		return input.Errorf("this is no %s: its format is %q where %q is expected", what, input.Clip(head.Format), format)
	}
	if head.Version != version {
		return input.Errorf("the %s is of version %d, and %d is read here: a newer Gyrophane wrote it; open it with that", what, head.Version, version)
	}
	d := json.NewDecoder(bytes.NewReader(data))
	d.DisallowUnknownFields()
	if err := d.Decode(into); err != nil {
		return input.Errorf("the file cannot be understood: %s", strings.TrimPrefix(err.Error(), "json: "))
	}
	return nil
}

// ReadWheelFile reads a file; whether its paints and choices can be, is not looked at. The error is an
// input.Error.
func ReadWheelFile(data []byte) (out WheelFile, err error) {
	var f wheelFile
	if err := openFile(data, MostWheelBytes, "wheel's file", wheelFormat, wheelVersion, &f); err != nil {
		return out, err
	}
	if f.Paints.Version > snapshotShape.Version || f.Settings.Version > settingsShape.Version {
		return out, input.Errorf("the file was written by a newer Gyrophane: open it with that")
	}
	if len(f.Paints.Frozen) > mostCarried || len(f.Tubes) > mostCarried {
		return out, input.Errorf("the file has more than %d paints", mostCarried)
	}
	for id, t := range f.Paints.Frozen {
		if t.Definition.Version > definitionShape.Version {
			return out, input.Errorf("%s was written by a newer Gyrophane: open the file with that", input.Clip(id))
		}
		if n := len(t.Definition.K) + len(t.Definition.S); n != 0 && n != 2*colour.Bands {
			return out, input.Errorf("%s: its curves have %d values, and not twice %d", input.Clip(id), n, colour.Bands)
		}
	}
	snapshot := f.Paints.open()
	out.Content = WheelContent{Name: f.Name, Kind: string(snapshot.System.Kind), Snapshot: snapshot, Settings: f.Settings.open(), LibraryVersion: f.Library}
	out.Tubes = f.Tubes
	return out, nil
}

// BroughtTubes are tubes that are put into a box for what came in a file.
type BroughtTubes struct {
	Summary string
	Tubes   []NewTube
	Learned []*TakenStrength // of each where that was learned, else nil
	Medium  string           // that it was learned in
}

// bringTubes puts them into the box, and gives them their strengths.
func bringTubes(tx *gorm.DB, painter int64, b BroughtTubes) (added []Tube, err error) {
	if len(b.Tubes) == 0 {
		return nil, nil
	}
	if added, err = addTubes(tx, BoxChange{PainterID: painter, Summary: b.Summary}, b.Tubes); err != nil {
		return nil, err
	}
	t := Taking{PainterID: painter, Medium: b.Medium}
	for i, one := range b.Learned {
		if one == nil {
			continue
		}
		strength := *one
		strength.TubeID = added[i].ID
		t.Strengths = append(t.Strengths, strength)
	}
	if len(t.Strengths) == 0 {
		return added, nil
	}
	return added, keepTaking(tx, &t)
}

// BringWheel keeps a wheel that came in a file, with tubes that are put into the box for it, all or nothing: build makes
// its content of them. The error is a Refusal where there is no room.
func (s *Store) BringWheel(ctx context.Context, painter int64, tubes BroughtTubes, build func(added []Tube) (WheelContent, error)) (Wheel, error) {
	var w Wheel
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		added, err := bringTubes(tx, painter, tubes)
		if err != nil {
			return err
		}
		content, err := build(added)
		if err != nil {
			return err
		}
		w, err = createWheel(tx, painter, content)
		return err
	})
	return w, err
}
