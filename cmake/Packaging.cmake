# SPDX-License-Identifier: GPL-3.0-or-later
# What is installed where, and the Debian package: cmake --build build/release --target package
include(GNUInstallDirs)
install(TARGETS inchpeg inchpeg-cli inchpeg-rig RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
# Started by the window and the command line alone.
install(TARGETS inchpeg-tone inchpeg-pages RUNTIME DESTINATION ${CMAKE_INSTALL_LIBEXECDIR}/inchpeg)
set(packaging ${PROJECT_SOURCE_DIR}/packaging)
install(FILES ${packaging}/org.inchpeg.InchPeg.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
install(FILES ${packaging}/org.inchpeg.InchPeg.metainfo.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/metainfo)
install(FILES ${packaging}/inchpeg.svg DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/scalable/apps)
install(FILES ${packaging}/inchpeg-mime.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/mime/packages RENAME inchpeg.xml)
install(FILES ${packaging}/copyright DESTINATION ${CMAKE_INSTALL_DATADIR}/doc/inchpeg)
install(FILES ${PROJECT_SOURCE_DIR}/docs/export_format.md ${PROJECT_SOURCE_DIR}/docs/project_format.md
              ${PROJECT_SOURCE_DIR}/docs/methods.md ${PROJECT_SOURCE_DIR}/docs/plan_format.md
              ${PROJECT_SOURCE_DIR}/docs/log_format.md ${PROJECT_SOURCE_DIR}/docs/rig_protocol.md
        DESTINATION ${CMAKE_INSTALL_DATADIR}/doc/inchpeg)

# Debian wants manual pages and the changelog compressed, without a time in them.
find_program(GZIP gzip REQUIRED)
foreach(page inchpeg.1 inchpeg-rig.1 changelog)
    set(packed ${CMAKE_CURRENT_BINARY_DIR}/${page}.gz)
    add_custom_command(OUTPUT ${packed} DEPENDS ${packaging}/${page}
        COMMAND ${GZIP} -9nc ${packaging}/${page} > ${packed} VERBATIM)
    list(APPEND packed_pages ${packed})
endforeach()
# The command line describes itself.
set(cli_page ${CMAKE_CURRENT_BINARY_DIR}/inchpeg-cli.1)
set(cli_completion ${CMAKE_CURRENT_BINARY_DIR}/inchpeg-cli.bash)
add_custom_command(OUTPUT ${cli_page}.gz ${cli_completion} DEPENDS inchpeg-cli
    COMMAND inchpeg-cli --manual > ${cli_page}
    COMMAND ${GZIP} -9nc ${cli_page} > ${cli_page}.gz
    COMMAND inchpeg-cli --completion bash > ${cli_completion} VERBATIM)
list(APPEND packed_pages ${cli_page}.gz ${cli_completion})
install(FILES ${cli_completion} DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions RENAME inchpeg-cli)
add_custom_target(packed_pages ALL DEPENDS ${packed_pages})
install(FILES ${CMAKE_CURRENT_BINARY_DIR}/inchpeg.1.gz ${CMAKE_CURRENT_BINARY_DIR}/inchpeg-cli.1.gz
              ${CMAKE_CURRENT_BINARY_DIR}/inchpeg-rig.1.gz
        DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
install(FILES ${CMAKE_CURRENT_BINARY_DIR}/changelog.gz DESTINATION ${CMAKE_INSTALL_DATADIR}/doc/inchpeg)

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME inchpeg)
set(CPACK_PACKAGE_VENDOR "The Inch Peg developers")
set(CPACK_PACKAGE_CONTACT "The Inch Peg developers <inchpeg@localhost>")
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "mechanical tests of printed specimens, from question to verdict")
set(CPACK_DEBIAN_PACKAGE_DESCRIPTION
"Inch Peg is for people who print specimens and break them. It plans the
smallest test that can answer a question, keeps what was measured, reads the
force curves by ISO 527-1, and says in plain words what differs, by how much,
and how sure that is. Everything stays on one machine, in open formats; a
command line gives the same numbers.")
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_STRIP_FILES ON)
set(CPACK_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS
    OWNER_READ OWNER_WRITE OWNER_EXECUTE GROUP_READ GROUP_EXECUTE WORLD_READ WORLD_EXECUTE)
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SECTION science)
set(CPACK_DEBIAN_PACKAGE_PRIORITY optional)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
# Plugins and fonts are loaded by name, which no tool can see.
set(CPACK_DEBIAN_PACKAGE_DEPENDS "libqt6sql6-sqlite, libqt6svg6, fonts-noto-core | fonts-dejavu-core")
include(CPack)
