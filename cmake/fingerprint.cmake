# Writes OUT: a C++ source with one hash over all sources of the program and the
# lock file of the grammars. What a build keeps in its cache is of use to that
# build alone.
cmake_minimum_required(VERSION 3.25)
file(GLOB_RECURSE sources ${ROOT}/src/*.cpp ${ROOT}/src/*.h)
list(SORT sources)
set(all "")
foreach(source ${sources} ${ROOT}/grammars/package-lock.json)
  file(SHA256 ${source} one)
  string(APPEND all ${one})
endforeach()
string(SHA256 hash "${all}")
file(CONFIGURE OUTPUT ${OUT} CONTENT "#include \"store/fingerprint.h\"\n\nnamespace elmcart {\nstd::string_view buildFingerprint() { return \"@hash@\"; }\n}  // namespace elmcart\n" @ONLY)
