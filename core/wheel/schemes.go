package wheel

// Scheme is a set of slots read off the wheel.
type Scheme string

// The schemes.
const (
	Complement      Scheme = "complement"
	SplitComplement Scheme = "split complement"
	Analogous       Scheme = "analogous"
	TriadScheme     Scheme = "triad"
)

// Schemes lists them, with the places each adds to the one it starts from.
var Schemes = []struct {
	Scheme Scheme
	Offset []int
}{
	{Complement, []int{0, 6}},
	{SplitComplement, []int{0, 5, 7}},
	{Analogous, []int{11, 0, 1}},
	{TriadScheme, []int{0, 4, 8}},
}

// SchemeSlots are the slots of a scheme from one slot on, empty ones left out.
func (w *Wheel) SchemeSlots(index int, scheme Scheme) (out []int) {
	for _, s := range Schemes {
		if s.Scheme != scheme {
			continue
		}
		for _, by := range s.Offset {
			if at := (index + by) % 12; !w.Slots[at].Empty {
				out = append(out, at)
			}
		}
	}
	return out
}
