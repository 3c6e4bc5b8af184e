from harbour.office import Office
from harbour.tides import TideTable

office = Office("Tern", title="harbour")
office.hire("Wren", 8)
print(office.day())
print(TideTable.table().asked, "looks")
