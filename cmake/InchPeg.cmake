# SPDX-License-Identifier: GPL-3.0-or-later
# Flags and the two helper functions that every folder uses.

add_library(inchpeg_flags INTERFACE)
target_compile_options(inchpeg_flags INTERFACE
    -Wall -Wextra -Wpedantic -Wshadow -Wconversion -Wsign-conversion -Wold-style-cast -Wdouble-promotion)
target_compile_definitions(inchpeg_flags INTERFACE QT_NO_CAST_FROM_ASCII QT_NO_CAST_TO_ASCII)

option(INCHPEG_SANITIZE "Address and undefined-behaviour sanitizers" OFF)
if(INCHPEG_SANITIZE)
    # The sanitizers' own instructions make g++ 12 see uninitialised values that are none.
    target_compile_options(inchpeg_flags INTERFACE -Wno-maybe-uninitialized)
    # Without the checks of each pointer the build takes less than half as long: the address sanitizer stops at
    # a null pointer and beyond an object as well, and this machine reads where it likes.
    add_compile_options(-fsanitize=address,undefined -fno-sanitize=null,alignment,object-size,pointer-overflow
                        -fno-sanitize-recover=all -fno-omit-frame-pointer)
    add_link_options(-fsanitize=address,undefined)
endif()

option(INCHPEG_FUZZ "libFuzzer targets; needs clang" OFF)
if(INCHPEG_FUZZ)
    add_compile_options(-fsanitize=fuzzer-no-link,address,undefined -fno-sanitize-recover=all)
    add_link_options(-fsanitize=address,undefined)
endif()

# inchpeg_library(core SOURCES a.cpp DEPENDS Boost::headers): the static library InchPeg::core.
function(inchpeg_library name)
    cmake_parse_arguments(ARG "" "" "SOURCES;DEPENDS" ${ARGN})
    add_library(inchpeg_${name} STATIC ${ARG_SOURCES})
    if(NOT ARG_DEPENDS MATCHES "Qt6::")
        set_target_properties(inchpeg_${name} PROPERTIES AUTOMOC OFF)
    endif()
    add_library(InchPeg::${name} ALIAS inchpeg_${name})
    target_include_directories(inchpeg_${name} PUBLIC ${PROJECT_SOURCE_DIR}/src)
    target_link_libraries(inchpeg_${name} PUBLIC ${ARG_DEPENDS} PRIVATE inchpeg_flags)
    inchpeg_precompile(inchpeg_${name} "${ARG_DEPENDS}")
endfunction()

# Headers that most files of a target include and that take long to read.
function(inchpeg_precompile target depends)
    set(headers <algorithm> <map> <optional> <string> <vector> <fmt/format.h>)
    if(depends MATCHES "nlohmann_json")
        list(APPEND headers <nlohmann/json.hpp>)
    endif()
    if(depends MATCHES "Qt6::Widgets|InchPeg::app")
        list(APPEND headers <QBoxLayout> <QComboBox> <QDialog> <QGridLayout> <QHeaderView> <QLabel> <QLineEdit>
             <QPainter> <QPushButton> <QTableView> <QtConcurrentRun>)
    endif()
    if(depends MATCHES "GTest")
        list(APPEND headers <gtest/gtest.h>)
    endif()
    target_precompile_headers(${target} PRIVATE ${headers})
endfunction()

# inchpeg_test(core_test SOURCES a_test.cpp DEPENDS InchPeg::core): one test program, its tests found by ctest.
function(inchpeg_test name)
    cmake_parse_arguments(ARG "" "" "SOURCES;DEPENDS" ${ARGN})
    add_executable(${name} ${ARG_SOURCES})
    target_include_directories(${name} PRIVATE ${PROJECT_SOURCE_DIR}/tests)
    target_compile_definitions(${name} PRIVATE INCHPEG_TEST_DATA="${PROJECT_SOURCE_DIR}/tests/data"
                                               INCHPEG_SOURCE_DIR="${PROJECT_SOURCE_DIR}")
    target_link_libraries(${name} PRIVATE ${ARG_DEPENDS} GTest::gtest inchpeg_flags)
    # Tests are compiled more often than they run: less optimised, they are there sooner.
    target_compile_options(${name} PRIVATE $<$<CONFIG:Release>:-O1>)
    # Compiled several files at once, a fixture in an unnamed namespace stands in an included file.
    target_compile_options(${name} PRIVATE $<$<BOOL:${CMAKE_UNITY_BUILD}>:-Wno-subobject-linkage>)
    inchpeg_precompile(${name} "${ARG_DEPENDS};GTest")
    gtest_discover_tests(${name} DISCOVERY_TIMEOUT 60 PROPERTIES TIMEOUT 600 LABELS ${name})
endfunction()
