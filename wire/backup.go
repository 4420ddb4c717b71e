package wire

import "gyrophane/studio"

// Belongings count what is kept of a painter, as a backup holds it.
type Belongings struct {
	Tubes       int64  `json:"tubes"`
	Wheels      int64  `json:"wheels"`
	Sittings    int64  `json:"sittings"`
	Readings    int64  `json:"readings"`
	Photos      int64  `json:"photos"`
	Takings     int64  `json:"takings" doc:"times that strengths were taken"`
	Guesses     int64  `json:"guesses"`
	Comparisons int64  `json:"comparisons"`
	Bytes       int64  `json:"bytes" doc:"about, of a backup"`
	Backup      string `json:"backup" doc:"what a backup is called when it is saved"`
}

// BelongingsOf shapes what is kept of a painter; a backup of it goes by a name.
func BelongingsOf(b studio.Belongings, name string) Belongings {
	return Belongings{Tubes: b.Tubes, Wheels: b.Wheels, Sittings: b.Sittings, Readings: b.Readings, Photos: b.Photos, Takings: b.Takings, Guesses: b.Guesses, Comparisons: b.Comparisons, Bytes: b.Bytes, Backup: name}
}

// Restoring is how far a backup is that is looked at, or taken in.
type Restoring struct {
	State   string         `json:"state" enum:"none,under way,looked at,taken in,refused"`
	Keep    bool           `json:"keep" doc:"it is taken in, and not only looked at"`
	Done    int            `json:"done"`
	Of      int            `json:"of" doc:"0 while it waits for its turn"`
	Problem string         `json:"problem,omitempty" doc:"why it was refused"`
	Made    string         `json:"made,omitempty" doc:"the painter it is of"`
	Kinds   []RestoredKind `json:"kinds" doc:"what became of it, or would"`
}

// RestoredKind is what becomes of the things of one kind.
type RestoredKind struct {
	What    string   `json:"what"`
	Added   int      `json:"added"`
	Updated int      `json:"updated" doc:"the backup's came later"`
	Stay    int      `json:"stay" doc:"they are as in the backup, or came later"`
	Beside  []string `json:"beside" doc:"they went two ways, and both are kept; by name"`
}

// RestoringAt is what is known of a backup that is taken in.
type RestoringAt struct {
	Known    bool // one was begun
	Under    bool // and is under way, or waits for its turn
	Keep     bool // it is taken in, and not only looked at
	Done, Of int  // of what is seen to now; 0 of 0 while it waits
	Came     studio.Restored
	Refused  string // why it came to nothing
}

// RestoringOf shapes how far a backup is.
func RestoringOf(r RestoringAt) Restoring {
	out := Restoring{State: "none", Keep: r.Keep, Done: r.Done, Of: r.Of, Kinds: []RestoredKind{}}
	switch {
	case !r.Known:
	case r.Under:
		out.State = "under way"
	case r.Refused != "":
		out.State, out.Problem = "refused", r.Refused
	default:
		out.State, out.Made = "looked at", r.Came.Made
		if r.Keep {
			out.State = "taken in"
		}
		for _, k := range r.Came.Kinds {
			one := RestoredKind{What: k.What, Added: k.Added, Updated: k.Updated, Stay: k.Stay, Beside: []string{}}
			out.Kinds = append(out.Kinds, one)
			out.Kinds[len(out.Kinds)-1].Beside = append(one.Beside, k.Beside...)
		}
	}
	return out
}
