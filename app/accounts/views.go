package accounts

import "frugalheron/store/accounts"

// AccountView is what is told of a person who signs in.
type AccountView struct {
	ID       int64  `json:"id"`
	Login    string `json:"login"`
	Name     string `json:"name"`
	Role     string `json:"role" enum:"curator,technician,viewer"`
	Disabled bool   `json:"disabled" doc:"It cannot sign in"`
	Version  int    `json:"version"`
}

// ListedAccountView is an account as the curator sees it.
type ListedAccountView struct {
	AccountView
	Invited bool `json:"invited" doc:"Nobody has set a password yet"`
}

func viewOf(a accounts.Account) AccountView {
	return AccountView{a.ID, a.Login, a.Name, a.Role, a.Disabled, a.Version}
}
