// Included in the middle of two classes: what it declares is theirs, for each of their objects.
int readLine();
int currentLine;
int* currentPlace;
