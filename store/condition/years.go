package condition

import (
	"context"

	"frugalheron/store/pg"
)

// YearRow is what was open at the end of a year, by severity, and how many machines were surveyed in it.
type YearRow struct {
	Year     int `db:"year"`
	Hazard   int `db:"hazard"`
	Repair   int `db:"repair"`
	Watch    int `db:"watch"`
	Cosmetic int `db:"cosmetic"`
	Machines int `db:"machines"`
}

// OpenByYear counts the findings that were open at the end of each year since the first one, up to the year of a day. Of
// each finding the last that was said of it by then counts.
func OpenByYear(ctx context.Context, h pg.Handle, today string) ([]YearRow, error) {
	found := []YearRow{}
	err := h.SelectContext(ctx, &found, `
		WITH said AS (
			SELECT o.severity, o.gone, CAST(extract(year FROM o.seen_on) AS integer) AS from_year,
				CAST(extract(year FROM lead(o.seen_on) OVER (PARTITION BY o.finding_id
					ORDER BY o.seen_on, o.id)) AS integer) AS until_year
			FROM observation o JOIN finding f ON f.id = o.finding_id WHERE NOT f.voided
		), surveyed AS (
			SELECT CAST(extract(year FROM made_on) AS integer) AS year, count(DISTINCT machine_id) AS machines
			FROM survey WHERE finished GROUP BY 1
		)
		SELECT y.year, count(*) FILTER (WHERE s.severity = 'hazard') AS hazard,
			count(*) FILTER (WHERE s.severity = 'repair') AS repair,
			count(*) FILTER (WHERE s.severity = 'watch') AS watch,
			count(*) FILTER (WHERE s.severity = 'cosmetic') AS cosmetic, COALESCE(max(v.machines), 0) AS machines
		FROM generate_series((SELECT min(from_year) FROM said),
			CAST(extract(year FROM CAST($1 AS date)) AS integer)) AS y(year)
		LEFT JOIN said s ON NOT s.gone AND s.from_year <= y.year AND (s.until_year IS NULL OR s.until_year > y.year)
		LEFT JOIN surveyed v ON v.year = y.year
		GROUP BY y.year ORDER BY y.year`, today)
	return found, err
}
