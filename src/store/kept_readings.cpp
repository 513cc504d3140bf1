// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/kept_readings.h"

#include "core/reading/reading_text.h"
#include "store/database.h"

#include <bit>
#include <cstring>

namespace inchpeg
{

namespace
{

static_assert(std::endian::native == std::endian::little, "outlines are kept as little-endian doubles");

/// x and y of each point, one pair after the other.
QByteArray bytesOf(const CurveOutline &outline)
{
    QByteArray bytes(static_cast<qsizetype>(2 * sizeof(double) * outline.x.size()), Qt::Uninitialized);
    char *at = bytes.data();
    for (std::size_t i = 0; i < outline.x.size(); ++i) {
        const double pair[2] = {outline.x[i], outline.y[i]};
        std::memcpy(at, pair, sizeof pair);
        at += sizeof pair;
    }
    return bytes;
}

/// False where the bytes are no whole pairs or the break lies outside them.
bool fillOutline(CurveOutline &outline, const QByteArray &bytes)
{
    const auto size = static_cast<std::size_t>(bytes.size());
    if (size % (2 * sizeof(double)) != 0)
        return false;
    const std::size_t count = size / (2 * sizeof(double));
    outline.x.resize(count);
    outline.y.resize(count);
    const char *at = bytes.constData();
    for (std::size_t i = 0; i < count; ++i) {
        double pair[2];
        std::memcpy(pair, at, sizeof pair);
        outline.x[i] = pair[0];
        outline.y[i] = pair[1];
        at += sizeof pair;
    }
    return count == 0 || outline.breakAt < count;
}

} // namespace

KeptReadings::KeptReadings(std::unique_ptr<Database> database) : m_database(std::move(database)) {}
KeptReadings::KeptReadings(KeptReadings &&) noexcept = default;
KeptReadings &KeptReadings::operator=(KeptReadings &&) noexcept = default;
KeptReadings::~KeptReadings() = default;

Result<KeptReadings> KeptReadings::open(const std::string &projectPath)
{
    return guarded([&] {
        requireThere(projectPath);
        return KeptReadings(std::make_unique<Database>(projectPath, Database::Access::ReadWrite));
    });
}

Result<KeptReadings> KeptReadings::openForReading(const std::string &projectPath)
{
    return guarded(
        [&] { return KeptReadings(std::make_unique<Database>(projectPath, Database::Access::ReadOnly)); });
}

Status KeptReadings::load(StudyId study,
                          const std::function<bool(PieceId, const std::string &inputs)> &isWanted,
                          const std::function<bool(KeptReading)> &take)
{
    return guarded([&] {
        Query query(*m_database,
                    "SELECT k.piece_id, k.inputs, k.reading, k.outline FROM kept_reading k "
                    "JOIN piece p ON p.id = k.piece_id WHERE p.study_id = ? ORDER BY p.position");
        query.bind(QVariant(qint64{study.value})).run();
        while (query.next()) {
            KeptReading kept{PieceId{query.integer(0)}, query.text(1), {}};
            if (!isWanted(kept.piece, kept.inputs))
                continue;
            Result<PieceReading> reading = readingFromText(query.text(2));
            if (!reading || !fillOutline(reading->outline, query.bytes(3)))
                continue;
            kept.reading = std::move(*reading);
            if (!take(std::move(kept)))
                break;
        }
        return std::monostate{};
    });
}

Status KeptReadings::keep(const std::vector<KeptReading> &readings)
{
    return guarded([&] {
        Transaction transaction(*m_database);
        Query query(*m_database, "INSERT INTO kept_reading (piece_id, inputs, reading, outline) "
                                 "SELECT id, ?, ?, ? FROM piece WHERE id = ? "
                                 "ON CONFLICT (piece_id) DO UPDATE SET inputs = excluded.inputs, "
                                 "reading = excluded.reading, outline = excluded.outline");
        for (const KeptReading &kept : readings)
            query.bind(kept.inputs)
                .bind(readingText(kept.reading))
                .bind(QVariant(bytesOf(kept.reading.outline)))
                .bind(QVariant(qint64{kept.piece.value}))
                .run();
        transaction.commit();
        return std::monostate{};
    });
}

Result<std::vector<KeptValues>> KeptReadings::values()
{
    return guarded([&] {
        std::vector<KeptValues> all;
        Query query(*m_database, "SELECT study_id, revision, made_from, rails FROM kept_values");
        query.run();
        while (query.next())
            all.push_back({StudyId{query.integer(0)}, query.integer(1), query.text(2), query.text(3)});
        return all;
    });
}

Status KeptReadings::keepValues(const std::vector<KeptValues> &values)
{
    return guarded([&] {
        Transaction transaction(*m_database);
        Query query(*m_database,
                    "UPDATE kept_values SET made_from = ?, rails = ? WHERE study_id = ? AND revision = ?");
        for (const KeptValues &kept : values)
            query.bind(kept.madeFrom)
                .bind(kept.rails)
                .bind(QVariant(qint64{kept.study.value}))
                .bind(QVariant(qint64{kept.revision}))
                .run();
        transaction.commit();
        return std::monostate{};
    });
}

} // namespace inchpeg
