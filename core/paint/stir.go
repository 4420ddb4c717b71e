package paint

// Stir is a mixture taken for a paint of its own, to be mixed further: a
// secondary that is parted for its tertiaries, a paint raised with white. Its
// strength is 1, its cautions are the gravest of its paints; Of remembers what it
// was stirred from.
func Stir(id, name string, parts ...Part) (*Paint, error) {
	m, err := Mix(parts...)
	if err != nil {
		return nil, err
	}
	p := &Paint{ID: id, Name: name, Making: Stirred, Hiding: hidingOf(&m), StrengthClass: strengthOf(&m), Of: parts, strength: 1, alone: m}
	var of []*Paint
	for _, part := range parts {
		of = append(of, part.Paint)
	}
	p.takeAfter(of)
	return p, nil
}

// White is the titanium white that everything is let down with.
func White() *Paint { return titanium }
