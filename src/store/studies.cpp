// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/studies.h"

#include "core/model/rail_summary.h"
#include "core/model/workshop.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

SectionShape shapeFrom(const std::string &name)
{
    for (const SectionShape shape :
         {SectionShape::Rectangular, SectionShape::Round, SectionShape::PlainArea}) {
        if (name == sectionShapeName(shape))
            return shape;
    }
    throw StorageFailure(fmt::format("the shape of section \"{}\" is not known", name));
}

Method methodNamed(const std::string &name)
{
    if (const std::optional<Method> method = methodFrom(name))
        return *method;
    throw StorageFailure(fmt::format("the test \"{}\" is not known", name));
}

template <typename Kind>
QVariant idVariant(Id<Kind> id)
{
    return QVariant(qint64{id.value});
}

struct SectionColumns {
    std::optional<double> width_m, thickness_m, diameter_m, area_m2;
};

SectionColumns columnsOf(const std::optional<Section> &section)
{
    SectionColumns columns;
    if (!section)
        return columns;
    if (const auto *rectangle = std::get_if<RectangularSection>(&*section)) {
        columns.width_m = rectangle->width.si();
        columns.thickness_m = rectangle->thickness.si();
    } else if (const auto *round = std::get_if<RoundSection>(&*section)) {
        columns.diameter_m = round->diameter.si();
    } else {
        columns.area_m2 = std::get<PlainArea>(*section).area.si();
    }
    return columns;
}

std::optional<Section> sectionFrom(const SectionColumns &columns)
{
    if (columns.width_m && columns.thickness_m)
        return RectangularSection{Length::fromSi(*columns.width_m), Length::fromSi(*columns.thickness_m)};
    if (columns.diameter_m)
        return RoundSection{Length::fromSi(*columns.diameter_m)};
    if (columns.area_m2)
        return PlainArea{Area::fromSi(*columns.area_m2)};
    return std::nullopt;
}

/// A part of a piece that is kept as text, or a failure that names the piece.
template <typename T>
T readOr(Result<T> part, const std::string &code)
{
    if (!part)
        throw StorageFailure(fmt::format("piece {}: {}", code, part.error().message));
    return std::move(*part);
}

/// What is damaged, and what is not.
std::string damagedPart(const std::string &question, std::string_view part, const std::string &why)
{
    return fmt::format(
        "the {} of the study \"{}\" is damaged: it {}. The study cannot be opened; the other studies "
        "and all raw records can. A copy of the project from before has it whole",
        part, question, why);
}

Piece pieceFrom(const Query &row)
{
    Piece piece;
    piece.id = PieceId{row.integer(0)};
    piece.condition = ConditionId{row.integer(1)};
    piece.code = row.text(2);
    piece.section = sectionFrom(
        {row.optionalNumber(3), row.optionalNumber(4), row.optionalNumber(5), row.optionalNumber(6)});
    if (!row.isNull(7)) {
        const Result<ColumnMapping> mapping = mappingFromText(row.text(8));
        if (!mapping)
            throw StorageFailure(fmt::format("piece {}: its column mapping is not readable: {}", piece.code,
                                             mapping.error().message));
        piece.recording = Recording{RawFileId{row.integer(7)}, *mapping};
    }
    if (!row.isNull(9))
        piece.exclusion = Exclusion{row.text(9), row.text(10), row.text(11)};
    piece.test = methodNamed(row.text(12));
    piece.log = readOr(pieceLogFromText(row.text(13)), piece.code);
    piece.log.note = row.text(14);
    if (piece.recording && !row.isNull(15))
        piece.recording->gauge = readOr(usedGaugeFromText(row.text(15)), piece.code);
    return piece;
}

/// True where the lists hold the same things in the same places, as after nearly every edit.
template <typename Item>
bool areSameInOrder(const std::vector<Item> &now, const std::vector<Item> *before)
{
    return before != nullptr && std::equal(now.begin(), now.end(), before->begin(), before->end(),
                                           [](const Item &a, const Item &b) { return a.id == b.id; });
}

/// The place of each item in its list, for telling what moved.
template <typename Item>
std::map<std::int64_t, std::pair<const Item *, std::size_t>> byId(const std::vector<Item> &items)
{
    std::map<std::int64_t, std::pair<const Item *, std::size_t>> map;
    for (std::size_t i = 0; i < items.size(); ++i)
        map[items[i].id.value] = {&items[i], i};
    return map;
}

/// Calls write(item, position, what it was before) for what is new (nullptr), changed or moved.
template <typename Item, typename Write>
void forChanged(const std::vector<Item> &now, const std::vector<Item> *before, Write write)
{
    if (areSameInOrder(now, before)) {
        for (std::size_t i = 0; i < now.size(); ++i) {
            if (!((*before)[i] == now[i]))
                write(now[i], i, &(*before)[i]);
        }
        return;
    }
    const auto old =
        before != nullptr ? byId(*before) : std::map<std::int64_t, std::pair<const Item *, std::size_t>>{};
    for (std::size_t i = 0; i < now.size(); ++i) {
        const auto found = old.find(now[i].id.value);
        const Item *was = found == old.end() ? nullptr : found->second.first;
        if (was == nullptr || found->second.second != i || !(*was == now[i]))
            write(now[i], i, was);
    }
}

template <typename Item>
std::vector<std::int64_t> goneIds(const std::vector<Item> &now, const std::vector<Item> *before)
{
    std::vector<std::int64_t> gone;
    if (before == nullptr || areSameInOrder(now, before))
        return gone;
    const auto kept = byId(now);
    for (const Item &item : *before) {
        if (!kept.contains(item.id.value))
            gone.push_back(item.id.value);
    }
    return gone;
}

/// Of one study, or of all.
std::string ofStudy(std::optional<StudyId> only, const char *column)
{
    return only ? fmt::format(" WHERE {} = ?", column) : std::string();
}

Query &bindStudy(Query &query, std::optional<StudyId> only)
{
    return only ? query.bind(idVariant(*only)) : query;
}

} // namespace

StudyHeader headerOf(const Study &study)
{
    const auto recorded = std::count_if(study.pieces.begin(), study.pieces.end(),
                                        [](const Piece &piece) { return piece.recording.has_value(); });
    StudyHeader header{study.id, study.question, methodOf(study), study.pieces.size(),
                       static_cast<std::size_t>(recorded)};
    for (const StudyTest &test : study.tests)
        header.tests.push_back(test.method);
    header.isDated = !study.plan.dates.start.empty();
    return header;
}

std::vector<StudyHeader> Studies::list()
{
    Query query(m_database, "SELECT s.id, s.question, t.method, COUNT(p.id), COUNT(p.raw_file_id), "
                            "MAX(CASE WHEN s.plan LIKE '%\"start\"%' THEN 1 ELSE 0 END) FROM study s "
                            "LEFT JOIN study_test t ON t.study_id = s.id AND t.position = 0 "
                            "LEFT JOIN piece p ON p.study_id = s.id "
                            "GROUP BY s.id, s.question, t.method, s.position ORDER BY s.position, s.id");
    query.run();
    std::vector<StudyHeader> headers;
    while (query.next())
        // One whose test is none is listed all the same: it cannot be opened, and opening says why.
        headers.push_back({StudyId{query.integer(0)},
                           query.text(1),
                           methodFrom(query.text(2)).value_or(Method::Tension),
                           static_cast<std::size_t>(query.integer(3)),
                           static_cast<std::size_t>(query.integer(4)),
                           {},
                           query.integer(5) != 0});
    Query tests(m_database, "SELECT study_id, method FROM study_test ORDER BY study_id, position");
    tests.run();
    std::map<std::int64_t, std::vector<Method>> methods;
    while (tests.next()) {
        if (const std::optional<Method> method = methodFrom(tests.text(1)))
            methods[tests.integer(0)].push_back(*method);
    }
    for (StudyHeader &header : headers)
        header.tests = methods[header.id.value];
    return headers;
}

std::vector<Study> Studies::loadWithoutPieces()
{
    return loadHeads(std::nullopt);
}

std::vector<Study> Studies::loadHeads(std::optional<StudyId> only)
{
    std::vector<Study> studies;
    Query row(m_database, "SELECT id, question, reference_id, smallest_difference, section_shape, plan, log "
                          "FROM study" +
                              ofStudy(only, "id") + " ORDER BY position, id");
    bindStudy(row, only).run();
    while (row.next()) {
        Study &study = studies.emplace_back();
        study.tests.clear();
        study.factors.clear();
        study.id = StudyId{row.integer(0)};
        study.question = row.text(1);
        study.reference = ConditionId{row.integer(2)};
        study.smallestDifference = row.number(3);
        study.sectionShape = shapeFrom(row.text(4));
        Result<Plan> plan = planFromText(row.text(5));
        if (!plan)
            throw StorageFailure(damagedPart(study.question, "plan", plan.error().message));
        study.plan = std::move(*plan);
        Result<StudyLog> log = studyLogFromText(row.text(6));
        if (!log)
            throw StorageFailure(damagedPart(study.question, "log", log.error().message));
        study.log = std::move(*log);
    }
    ById byId;
    for (Study &study : studies)
        byId[study.id.value] = &study;
    loadTests(byId, only);
    loadFactors(byId, only);
    loadConditions(byId, only);
    return studies;
}

std::optional<Study> Studies::load(StudyId id)
{
    std::vector<Study> found = loadHeads(id);
    if (found.empty())
        return std::nullopt;
    Study study = std::move(found.front());
    Query pieces(m_database,
                 "SELECT id, condition_id, code, width_m, thickness_m, diameter_m, area_m2, raw_file_id, "
                 "column_mapping, left_out_reason, left_out_by, left_out_at, test, log, note, recorded_with "
                 "FROM piece "
                 "WHERE study_id = ? ORDER BY position");
    pieces.bind(idVariant(id)).run();
    while (pieces.next()) {
        study.pieces.push_back(pieceFrom(pieces));
    }
    loadMarkers(study);
    loadPhotos(study);
    return study;
}

void Studies::loadTests(const ById &studies, std::optional<StudyId> only)
{
    Query query(m_database, "SELECT study_id, method, pieces_per_condition, setup FROM study_test" +
                                ofStudy(only, "study_id") + " ORDER BY study_id, position");
    bindStudy(query, only).run();
    while (query.next()) {
        Study &study = *studies.at(query.integer(0));
        Result<TestSetup> setup = testSetupFromText(query.text(3));
        if (!setup)
            throw StorageFailure(damagedPart(study.question, "test " + query.text(1), setup.error().message));
        study.tests.push_back(
            {methodNamed(query.text(1)), static_cast<int>(query.integer(2)), std::move(*setup)});
    }
}

void Studies::loadFactors(const ById &studies, std::optional<StudyId> only)
{
    Query query(m_database, "SELECT study_id, name, unit, changed_per FROM study_factor" +
                                ofStudy(only, "study_id") + " ORDER BY study_id, position");
    bindStudy(query, only).run();
    while (query.next())
        studies.at(query.integer(0))
            ->factors.push_back({query.text(1), query.text(2), changedPerFrom(query.text(3))});
}

void Studies::loadConditions(const ById &studies, std::optional<StudyId> only)
{
    Query query(m_database, "SELECT c.study_id, c.id, c.orientation, c.material, l.level, c.summaries "
                            "FROM study_condition c LEFT JOIN condition_level l ON l.condition_id = c.id" +
                                ofStudy(only, "c.study_id") +
                                " ORDER BY c.study_id, c.position, c.id, l.position");
    bindStudy(query, only).run();
    while (query.next()) {
        Study &study = *studies.at(query.integer(0));
        const ConditionId id{query.integer(1)};
        if (study.conditions.empty() || study.conditions.back().id != id) {
            const std::optional<Orientation> orientation = orientationFrom(query.text(2));
            if (!orientation)
                throw StorageFailure(damagedPart(study.question, fmt::format("rail {}", id.value),
                                                 fmt::format("has \"{}\" for its orientation, which is "
                                                             "neither flat nor standing",
                                                             query.text(2))));
            Result<std::vector<RailSummary>> summaries = summariesFromText(query.text(5));
            if (!summaries)
                throw StorageFailure(damagedPart(
                    study.question, fmt::format("rail {}", id.value),
                    fmt::format("has summaries that cannot be read: {}", summaries.error().message)));
            study.conditions.push_back({id, {}, *orientation, query.text(3), std::move(*summaries)});
        }
        if (!query.isNull(4))
            study.conditions.back().levels.push_back(query.text(4));
    }
}

void Studies::loadMarkers(Study &study)
{
    std::map<std::int64_t, HandMarkers> placed;
    Query query(m_database, "SELECT m.piece_id, m.marker, m.place, m.reason, m.placed_by, m.placed_at "
                            "FROM hand_marker m JOIN piece p ON p.id = m.piece_id WHERE p.study_id = ?");
    query.bind(idVariant(study.id)).run();
    while (query.next()) {
        const std::string marker = query.text(1);
        if (!isKnownMarker(marker))
            throw StorageFailure(
                fmt::format("piece {}: its marker \"{}\" is not known", query.integer(0), query.text(1)));
        placed[query.integer(0)][marker] = {query.optionalNumber(2), query.text(3), query.text(4),
                                            query.text(5)};
    }
    for (Piece &piece : study.pieces) {
        if (const auto found = placed.find(piece.id.value); found != placed.end())
            piece.markers = std::move(found->second);
    }
}

void Studies::loadPhotos(Study &study)
{
    std::map<std::int64_t, std::vector<Photo>> photos;
    Query query(m_database,
                "SELECT f.piece_id, f.raw_file_id, f.caption, f.added_by, f.added_at FROM photo f "
                "JOIN piece p ON p.id = f.piece_id WHERE p.study_id = ? ORDER BY f.position");
    query.bind(idVariant(study.id)).run();
    while (query.next())
        photos[query.integer(0)].push_back(
            {RawFileId{query.integer(1)}, query.text(2), query.text(3), query.text(4)});
    for (Piece &piece : study.pieces) {
        if (const auto found = photos.find(piece.id.value); found != photos.end())
            piece.log.photos = std::move(found->second);
    }
}

void Studies::save(const Study &study, const Study *before)
{
    Query query(m_database,
                "INSERT INTO study (id, position, question, reference_id, smallest_difference, "
                "section_shape, plan, log) VALUES (?, (SELECT COUNT(*) FROM study), ?, ?, ?, ?, ?, ?) "
                "ON CONFLICT (id) DO UPDATE SET question = excluded.question, "
                "reference_id = excluded.reference_id, smallest_difference = excluded.smallest_difference, "
                "section_shape = excluded.section_shape, plan = excluded.plan, log = excluded.log");
    query.bind(idVariant(study.id))
        .bind(study.question)
        .bind(idVariant(study.reference))
        .bind(QVariant(study.smallestDifference))
        .bind(std::string(sectionShapeName(study.sectionShape)))
        .bind(planText(study.plan))
        .bind(studyLogText(study.log))
        .run();
    // What it came to is to be worked out anew; who works at it now sees by the revision that it is too late.
    Query(m_database, "INSERT INTO kept_values (study_id, revision, made_from, rails) VALUES (?, 1, '', '') "
                      "ON CONFLICT (study_id) DO UPDATE SET revision = kept_values.revision + 1, "
                      "made_from = '', rails = ''")
        .bind(idVariant(study.id))
        .run();
    if (before == nullptr || before->tests != study.tests)
        saveTests(study);
    if (before == nullptr || before->factors != study.factors)
        saveFactors(study);
    saveConditions(study, before);
    savePieces(study, before);
    for (std::int64_t id : goneIds(study.conditions, before != nullptr ? &before->conditions : nullptr)) {
        for (const char *sql : {"DELETE FROM condition_level WHERE condition_id = ?",
                                "DELETE FROM study_condition WHERE id = ?"})
            Query(m_database, sql).bind(QVariant(qint64{id})).run();
    }
}

void Studies::saveTests(const Study &study)
{
    Query(m_database, "DELETE FROM study_test WHERE study_id = ?").bind(idVariant(study.id)).run();
    Query query(m_database, "INSERT INTO study_test (study_id, position, method, pieces_per_condition, "
                            "setup) VALUES (?, ?, ?, ?, ?)");
    for (std::size_t i = 0; i < study.tests.size(); ++i)
        query.bind(idVariant(study.id))
            .bind(QVariant(static_cast<qint64>(i)))
            .bind(std::string(methodName(study.tests[i].method)))
            .bind(QVariant(study.tests[i].piecesPerCondition))
            .bind(testSetupText(study.tests[i].setup))
            .run();
}

void Studies::saveFactors(const Study &study)
{
    Query(m_database, "DELETE FROM study_factor WHERE study_id = ?").bind(idVariant(study.id)).run();
    Query query(m_database, "INSERT INTO study_factor (study_id, position, name, unit, changed_per) "
                            "VALUES (?, ?, ?, ?, ?)");
    for (std::size_t i = 0; i < study.factors.size(); ++i) {
        const Factor &factor = study.factors[i];
        query.bind(idVariant(study.id))
            .bind(QVariant(static_cast<qint64>(i)))
            .bind(factor.name)
            .bind(factor.unit)
            .bind(std::string(changedPerName(factor.changedPer)))
            .run();
    }
}

void Studies::saveConditions(const Study &study, const Study *before)
{
    Query query(m_database,
                "INSERT INTO study_condition (id, study_id, position, orientation, material, summaries) "
                "VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET position = excluded.position, "
                "orientation = excluded.orientation, material = excluded.material, "
                "summaries = excluded.summaries");
    Query clearLevels(m_database, "DELETE FROM condition_level WHERE condition_id = ?");
    Query addLevel(m_database,
                   "INSERT INTO condition_level (condition_id, position, level) VALUES (?, ?, ?)");
    forChanged(study.conditions, before != nullptr ? &before->conditions : nullptr,
               [&](const Condition &condition, std::size_t position, const Condition *) {
                   query.bind(idVariant(condition.id))
                       .bind(idVariant(study.id))
                       .bind(QVariant(static_cast<qint64>(position)))
                       .bind(std::string(orientationName(condition.orientation)))
                       .bind(condition.material)
                       .bind(summariesText(condition.summaries))
                       .run();
                   clearLevels.bind(idVariant(condition.id)).run();
                   for (std::size_t i = 0; i < condition.levels.size(); ++i)
                       addLevel.bind(idVariant(condition.id))
                           .bind(QVariant(static_cast<qint64>(i)))
                           .bind(condition.levels[i])
                           .run();
               });
}

void Studies::savePieces(const Study &study, const Study *studyBefore)
{
    const std::vector<Piece> *old = studyBefore != nullptr ? &studyBefore->pieces : nullptr;
    for (std::int64_t id : goneIds(study.pieces, old)) {
        for (const char *sql :
             {"DELETE FROM hand_marker WHERE piece_id = ?", "DELETE FROM kept_reading WHERE piece_id = ?",
              "DELETE FROM photo WHERE piece_id = ?", "DELETE FROM piece WHERE id = ?"})
            Query(m_database, sql).bind(QVariant(qint64{id})).run();
    }
    Query query(
        m_database,
        "INSERT INTO piece (id, study_id, condition_id, position, code, width_m, thickness_m, diameter_m, "
        "area_m2, "
        "raw_file_id, column_mapping, left_out_reason, left_out_by, left_out_at, test, log, note, "
        "recorded_with) "
        "VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET "
        "condition_id = excluded.condition_id, position = excluded.position, code = excluded.code, "
        "width_m = excluded.width_m, thickness_m = excluded.thickness_m, diameter_m = excluded.diameter_m, "
        "area_m2 = excluded.area_m2, raw_file_id = excluded.raw_file_id, "
        "column_mapping = excluded.column_mapping, left_out_reason = excluded.left_out_reason, "
        "left_out_by = excluded.left_out_by, left_out_at = excluded.left_out_at, "
        "test = excluded.test, log = excluded.log, note = excluded.note, "
        "recorded_with = excluded.recorded_with");
    const QVariant noText{QMetaType::fromType<QString>()};
    const QVariant noId{QMetaType::fromType<qint64>()};
    forChanged(study.pieces, old, [&](const Piece &piece, std::size_t position, const Piece *was) {
        const SectionColumns section = columnsOf(piece.section);
        query.bind(idVariant(piece.id))
            .bind(idVariant(study.id))
            .bind(idVariant(piece.condition))
            .bind(QVariant(static_cast<qint64>(position)))
            .bind(piece.code)
            .bind(section.width_m)
            .bind(section.thickness_m)
            .bind(section.diameter_m)
            .bind(section.area_m2)
            .bind(piece.recording ? idVariant(piece.recording->file) : noId)
            .bind(piece.recording ? mappingText(piece.recording->mapping) : std::string());
        if (piece.exclusion)
            query.bind(piece.exclusion->reason).bind(piece.exclusion->who).bind(piece.exclusion->when);
        else
            query.bind(noText).bind(noText).bind(noText);
        query.bind(std::string(methodName(piece.test)));
        query.bind(pieceLogText(piece.log)).bind(piece.log.note);
        if (piece.recording && piece.recording->gauge)
            query.bind(usedGaugeText(*piece.recording->gauge));
        else
            query.bind(noText);
        query.run();
        if (was == nullptr ? !piece.markers.empty() : was->markers != piece.markers)
            saveMarkers(piece);
        if (was == nullptr ? !piece.log.photos.empty() : was->log.photos != piece.log.photos)
            savePhotos(piece);
    });
}

void Studies::saveMarkers(const Piece &piece)
{
    Query(m_database, "DELETE FROM hand_marker WHERE piece_id = ?").bind(idVariant(piece.id)).run();
    for (const auto &[marker, placed] : piece.markers) {
        Query query(m_database, "INSERT INTO hand_marker (piece_id, marker, place, reason, placed_by, "
                                "placed_at) VALUES (?, ?, ?, ?, ?, ?)");
        query.bind(idVariant(piece.id))
            .bind(marker)
            .bind(placed.at)
            .bind(placed.reason)
            .bind(placed.who)
            .bind(placed.when)
            .run();
    }
}

void Studies::savePhotos(const Piece &piece)
{
    Query(m_database, "DELETE FROM photo WHERE piece_id = ?").bind(idVariant(piece.id)).run();
    Query query(m_database,
                "INSERT INTO photo (piece_id, position, raw_file_id, caption, added_by, added_at) "
                "VALUES (?, ?, ?, ?, ?, ?)");
    for (std::size_t i = 0; i < piece.log.photos.size(); ++i) {
        const Photo &photo = piece.log.photos[i];
        query.bind(idVariant(piece.id))
            .bind(QVariant(static_cast<qint64>(i)))
            .bind(idVariant(photo.file))
            .bind(photo.caption)
            .bind(photo.who)
            .bind(photo.when)
            .run();
    }
}

void Studies::remove(StudyId id)
{
    for (const char *sql :
         {"DELETE FROM kept_values WHERE study_id = ?", "DELETE FROM logged_change WHERE study_id = ?",
          "DELETE FROM photo WHERE piece_id IN (SELECT id FROM piece WHERE study_id = ?)",
          "DELETE FROM hand_marker WHERE piece_id IN (SELECT id FROM piece WHERE study_id = ?)",
          "DELETE FROM kept_reading WHERE piece_id IN (SELECT id FROM piece WHERE study_id = ?)",
          "DELETE FROM piece WHERE study_id = ?",
          "DELETE FROM condition_level WHERE condition_id IN (SELECT id FROM study_condition WHERE study_id "
          "= ?)",
          "DELETE FROM study_condition WHERE study_id = ?", "DELETE FROM study_factor WHERE study_id = ?",
          "DELETE FROM study_test WHERE study_id = ?", "DELETE FROM study WHERE id = ?"})
        Query(m_database, sql).bind(idVariant(id)).run();
}

} // namespace inchpeg
