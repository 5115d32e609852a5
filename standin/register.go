package standin

import (
	"archive/zip"
	"encoding/csv"
	"fmt"
	"io"
	"math/rand/v2"
	"strings"
)

// Names of people who are made up, from many countries.
var (
	givenNames = strings.Fields(
		`Amara Bilal Chiara Dmitri Elif Farid Greta Hana Ibrahim Juno Kenji Liv Mateo Noor Oskar Priya
		Quentin Rania Samir Tomás Uma Vera Wanjiru Xiomara Yusuf Zofia Aiko Bastian Celeste Dawit Esra Filip Giulia Hugo Ines
		Jamal Kirsi Luca Maya Nils Olga Paulo Rosa Sanna Tariq Ulla Viktor Wren Yara Zeno`,
	)
	familyNames = strings.Fields(
		`Haddad Mori Lindqvist Okafor Rossi Ivanov Demir Nasser Vogel Tanaka Sesay Larsen Duarte Kaya
		Novak Iyer Laurent Saleh Costa Weber Mwangi Ortega Aziz Zielinska Falk Moreau Petrov Abebe Holm Silva Berg Farah Quist
		Amin Castel Brandt Osei Marek Solano Teller`,
	)
)

// Person makes up a name.
func Person(random *rand.Rand) (given, family string) {
	return givenNames[random.IntN(len(givenNames))], familyNames[random.IntN(len(familyNames))]
}

// registered are the classes of the made-up register.
var registered = []struct {
	name     string
	students int
}{{"7 Alder", 27}, {"7 Rowan", 24}, {"8 Juniper", 26}, {"8 Larch", 28}, {"9 Aspen", 22}, {"10 Willow", 18}}

// WriteRegister writes the register of Tern Harbour School as 1EdTech OneRoster 1.2 has
// it in CSV, the same for the same seed. It stands in for a school's own system.
func WriteRegister(w io.Writer, seed uint64) error {
	random := rand.New(rand.NewPCG(seed, 12))
	users := [][]string{
		strings.Split("sourcedId,status,dateLastModified,enabledUser,username,userIds,givenName,familyName,"+
			"middleName,identifier,email,sms,phone,agentSourcedIds,grades,password,userMasterIdentifier,preferredGivenName,"+
			"preferredMiddleName,preferredFamilyName,primaryOrgSourcedId,pronouns", ","),
	}
	classes := [][]string{
		strings.Split("sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,"+
			"location,schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods", ","),
	}
	enrollments := [][]string{
		strings.Split("sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,"+
			"role,primary,beginDate,endDate", ","),
	}
	for i, c := range registered {
		class := fmt.Sprint("class-", i+1)
		classes = append(
			classes,
			[]string{class, "", "", c.name, "", "", "", "homeroom", "", "tern-harbour", "year", "", "", ""},
		)
		for n := range c.students {
			user := fmt.Sprintf("%s-%02d", class, n+1)
			given, family := Person(random)
			users = append(
				users,
				[]string{user, "", "", "true", user, "", given, family, "", "", "", "", "", "", "", "", "", "",
					"", "", "tern-harbour", ""},
			)
			enrollments = append(
				enrollments,
				[]string{"in-" + user, "", "", class, "tern-harbour", user, "student", "", "", ""},
			)
		}
	}
	archive := zip.NewWriter(w)
	for _, file := range []struct {
		name string
		rows [][]string
	}{
		{"manifest.csv", [][]string{{"propertyName", "value"}, {"manifest.version", "1.0"},
			{"oneroster.version", "1.2"},
			{"file.classes", "bulk"}, {"file.enrollments", "bulk"}, {"file.orgs", "bulk"}, {"file.users", "bulk"},
			{"source.systemName", "made-up register"}}},
		{"orgs.csv", [][]string{{"sourcedId", "status", "dateLastModified", "name", "type", "identifier",
			"parentSourcedId"},
			{"tern-harbour", "", "", "Tern Harbour School", "school", "", ""}}},
		{"users.csv", users}, {"classes.csv", classes}, {"enrollments.csv", enrollments},
	} {
		to, err := archive.Create(file.name)
		if err != nil {
			return err
		}
		if err := csv.NewWriter(to).WriteAll(file.rows); err != nil {
			return err
		}
	}
	return archive.Close()
}
