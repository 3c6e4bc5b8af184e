# What is installed: the program, its manual pages and completions (written from the same tables
# as the options), the demo, the documents, and the licences of what is compiled in.
# `cpack` in the build folder makes a Debian package of it.
include(GNUInstallDirs)

file(GLOB MANUAL_SOURCES CONFIGURE_DEPENDS ${CMAKE_SOURCE_DIR}/src/manual/*.cpp)
add_executable(write_manual ${MANUAL_SOURCES})
target_compile_options(write_manual PRIVATE -Wall -Wextra -Wpedantic -Wshadow -Werror)
set_target_properties(write_manual PROPERTIES UNITY_BUILD ${ELMCART_BATCHES})
target_link_libraries(write_manual PRIVATE elmcart_cli)
set(MANUAL ${CMAKE_BINARY_DIR}/manual)
add_custom_command(OUTPUT ${MANUAL}/man1/elmcart.1
  COMMAND write_manual ${MANUAL}
  DEPENDS write_manual COMMENT "Writing manual pages and completions" VERBATIM)
set(LICENCES ${CMAKE_BINARY_DIR}/generated/copyright)
add_custom_command(OUTPUT ${LICENCES}
  COMMAND ${CMAKE_COMMAND} -DROOT=${CMAKE_SOURCE_DIR} -DOUT=${LICENCES} -P ${CMAKE_SOURCE_DIR}/cmake/licences.cmake
  DEPENDS ${CMAKE_SOURCE_DIR}/grammars/package-lock.json ${CMAKE_SOURCE_DIR}/cmake/licences.cmake
  COMMENT "Collecting the licences of what is compiled in" VERBATIM)
add_custom_target(manual ALL DEPENDS ${MANUAL}/man1/elmcart.1 ${LICENCES})

install(TARGETS elmcart RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
# Manual pages are kept compressed.
install(CODE "file(GLOB pages RELATIVE \"${MANUAL}/man1\" \"${MANUAL}/man1/*.1\")
foreach(page \${pages})
  file(MAKE_DIRECTORY \"\$ENV{DESTDIR}\${CMAKE_INSTALL_PREFIX}/${CMAKE_INSTALL_MANDIR}/man1\")
  file(ARCHIVE_CREATE OUTPUT \"\$ENV{DESTDIR}\${CMAKE_INSTALL_PREFIX}/${CMAKE_INSTALL_MANDIR}/man1/\${page}.gz\" PATHS \"${MANUAL}/man1/\${page}\" FORMAT raw COMPRESSION GZip)
endforeach()")
install(FILES ${MANUAL}/bash/elmcart DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions)
install(FILES ${MANUAL}/zsh/_elmcart DESTINATION ${CMAKE_INSTALL_DATADIR}/zsh/vendor-completions)
install(FILES ${MANUAL}/fish/elmcart.fish DESTINATION ${CMAKE_INSTALL_DATADIR}/fish/vendor_completions.d)
install(DIRECTORY ${CMAKE_SOURCE_DIR}/demo DESTINATION ${CMAKE_INSTALL_DATADIR}/elmcart)
install(DIRECTORY ${CMAKE_SOURCE_DIR}/docs DESTINATION ${CMAKE_INSTALL_DOCDIR})
install(FILES ${CMAKE_SOURCE_DIR}/README.md ${LICENCES} DESTINATION ${CMAKE_INSTALL_DOCDIR})

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME elmcart)
set(CPACK_PACKAGE_VENDOR "Elm Cart")
set(CPACK_PACKAGE_CONTACT "Elm Cart <elmcart@example.org>")
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "finds, judges and reworks global shared state")
set(CPACK_DEBIAN_PACKAGE_DESCRIPTION "Elm Cart finds singletons and other global shared state in\nobject-oriented code of twelve languages, checks how it is made, whether\nit is safe with threads and whether lifetimes hold, and reworks it toward\ndependency injection step by step under the project's own tests.")
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_STRIP_FILES ON)
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SECTION devel)
set(CPACK_DEBIAN_PACKAGE_PRIORITY optional)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
# Figures are written with this font; the demo builds and tests a little project.
set(CPACK_DEBIAN_PACKAGE_DEPENDS "fonts-dejavu-core")
set(CPACK_DEBIAN_PACKAGE_RECOMMENDS "build-essential, cmake, libgtest-dev, git")
include(CPack)
