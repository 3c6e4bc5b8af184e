package office;

public class Main {
    public static void main(String[] arguments) {
        Office office = new Office();
        office.hire("Wren", 8);
        office.hire("Tern");
        System.out.print(office.day());
        office.remind();
        System.out.println(TideTable.table().asked() + " looks");
    }
}
