// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/reading/piece_reading.h"

#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace inchpeg
{

class Database;

/// What a study came to, studyValuesText(), with what that was made from.
struct KeptValues {
    StudyId study;
    std::int64_t revision = 0; ///< counts the changes of the study
    std::string madeFrom{};    ///< empty where nothing is kept
    std::string rails{};
};

/// A reading with what it was made from, readingInputs().
struct KeptReading {
    PieceId piece;
    std::string inputs;
    PieceReading reading;
};

/// Readings kept beside their pieces, so that a project opens without making them again. They may be lost at
/// any time: they can be made again from the raw data. A connection of its own, for use in another thread.
class KeptReadings
{
public:
    static Result<KeptReadings> open(const std::string &projectPath);
    static Result<KeptReadings> openForReading(const std::string &projectPath);
    KeptReadings(KeptReadings &&) noexcept;
    KeptReadings &operator=(KeptReadings &&) noexcept;
    ~KeptReadings();

    /// Hands over the readings of a study whose inputs are still those that are wanted, one after the other;
    /// goes on while take() says so. A reading that cannot be understood is passed over.
    Status load(StudyId study, const std::function<bool(PieceId, const std::string &inputs)> &isWanted,
                const std::function<bool(KeptReading)> &take);
    /// Keeps them in one transaction; passes over pieces that are gone by now.
    Status keep(const std::vector<KeptReading> &readings);

    /// Of every study of the project.
    Result<std::vector<KeptValues>> values();
    /// Keeps them, but of no study that was changed since the revision.
    Status keepValues(const std::vector<KeptValues> &values);

private:
    explicit KeptReadings(std::unique_ptr<Database> database);
    std::unique_ptr<Database> m_database;
};

} // namespace inchpeg
