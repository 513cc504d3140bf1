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

option(INCHPEG_SANITIZE_THREADS "Thread sanitizer" OFF)
if(INCHPEG_SANITIZE_THREADS)
    target_compile_options(inchpeg_flags INTERFACE -Wno-maybe-uninitialized -Wno-tsan)
    add_compile_options(-fsanitize=thread -fno-omit-frame-pointer)
    add_link_options(-fsanitize=thread)
endif()

# As distributions build theirs: a file that was made to overrun a buffer or a call ends the program instead of
# taking it over.
if(NOT INCHPEG_SANITIZE AND NOT INCHPEG_SANITIZE_THREADS AND NOT INCHPEG_FUZZ)
    include(CheckCXXCompilerFlag)
    set(CMAKE_POSITION_INDEPENDENT_CODE ON)
    add_compile_options(-fstack-protector-strong -fstack-clash-protection
                        $<$<CONFIG:Release>:-U_FORTIFY_SOURCE> $<$<CONFIG:Release>:-D_FORTIFY_SOURCE=2>)
    add_link_options(-Wl,-z,relro -Wl,-z,now)
    check_cxx_compiler_flag(-fcf-protection INCHPEG_CAN_PROTECT_CONTROL_FLOW)
    if(INCHPEG_CAN_PROTECT_CONTROL_FLOW)
        add_compile_options(-fcf-protection)
    endif()
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

# inchpeg_test(core_test SOURCES a_test.cpp DEPENDS InchPeg::core): one test program; ctest runs it once for each
# of its files, and for each test of those that are ALONE.
function(inchpeg_test name)
    cmake_parse_arguments(ARG "" "" "SOURCES;DEPENDS;ALONE" ${ARGN})
    add_executable(${name} ${ARG_SOURCES})
    target_include_directories(${name} PRIVATE ${PROJECT_SOURCE_DIR}/tests)
    target_compile_definitions(${name} PRIVATE INCHPEG_TEST_DATA="${PROJECT_SOURCE_DIR}/tests/data"
                                               INCHPEG_SOURCE_DIR="${PROJECT_SOURCE_DIR}")
    target_link_libraries(${name} PRIVATE ${ARG_DEPENDS} GTest::gtest inchpeg_flags)
    # Tests are compiled more often than they run: less optimised, they are there sooner.
    target_compile_options(${name} PRIVATE $<$<CONFIG:Release>:-O1>)
    # … and so are they under the sanitizers, where what they test is optimised.
    target_compile_options(${name} PRIVATE $<$<BOOL:${INCHPEG_SANITIZE}>:-O0>)
    # Compiled several files at once, a fixture in an unnamed namespace stands in an included file.
    target_compile_options(${name} PRIVATE $<$<BOOL:${CMAKE_UNITY_BUILD}>:-Wno-subobject-linkage>)
    inchpeg_precompile(${name} "${ARG_DEPENDS};GTest")
    foreach(source ${ARG_SOURCES})
        if(source IN_LIST ARG_ALONE)
            inchpeg_tests_of_file(${name} ${source} EACH_ALONE)
        else()
            inchpeg_tests_of_file(${name} ${source})
        endif()
    endforeach()
endfunction()

# The tests of one file share a process: a program with a window takes longer to start than most tests to run.
function(inchpeg_tests_of_file name source)
    set_property(DIRECTORY APPEND PROPERTY CMAKE_CONFIGURE_DEPENDS ${source})
    file(STRINGS ${source} lines REGEX "^(TEST|TEST_F|TEST_P)\\(")
    set(filter "")
    foreach(line ${lines})
        if(line MATCHES "^TEST(_F)?\\(([A-Za-z0-9_]+), *([A-Za-z0-9_]+)")
            string(APPEND filter "${CMAKE_MATCH_2}.${CMAKE_MATCH_3}:")
        elseif(line MATCHES "^TEST_P\\(([A-Za-z0-9_]+), *([A-Za-z0-9_]+)")
            string(APPEND filter "*/${CMAKE_MATCH_1}.${CMAKE_MATCH_2}/*:")
        endif()
    endforeach()
    if(NOT filter)
        return()
    endif()
    string(REGEX REPLACE "\\.cpp$" "" test ${source})
    set(filters ${filter})
    if("EACH_ALONE" IN_LIST ARGN)
        string(REPLACE ":" ";" filters ${filter})
    endif()
    foreach(filter ${filters})
        set(full ${name}/${test})
        if("EACH_ALONE" IN_LIST ARGN)
            string(APPEND full "/${filter}")
        endif()
        add_test(NAME ${full} COMMAND ${name} --gtest_brief=1 --gtest_filter=${filter})
        # No test judges time: the limit is there for one that never ends, on a slow machine with other work.
        set_tests_properties(${full} PROPERTIES TIMEOUT 3600 LABELS ${name})
    endforeach()
endfunction()
