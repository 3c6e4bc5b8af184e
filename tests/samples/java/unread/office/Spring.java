package office;

class Spring {
    int turn() {
        return 0;
    }
}
