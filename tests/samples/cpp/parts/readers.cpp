class SheetReader {
 public:
  int next() { return ++currentLine; }
#include "reader_part.h"

 private:
  int rows_ = 0;
};

class ListReader {
 public:
  int next() { return currentLine += 2; }
#include "reader_part.h"
};

int SheetReader::readLine() { return currentLine + rows_; }
int ListReader::readLine() { return currentLine; }
