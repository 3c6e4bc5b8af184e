module harbour.example/office

go 1.19
