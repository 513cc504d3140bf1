// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/studies.h"

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
    for (const SectionShape shape : {SectionShape::Round, SectionShape::PlainArea}) {
        if (name == sectionShapeName(shape))
            return shape;
    }
    return SectionShape::Rectangular;
}

Method methodFrom(const std::string &name)
{
    return name == methodName(Method::LayerAdhesion) ? Method::LayerAdhesion : Method::Tension;
}

Orientation orientationFrom(const std::string &name)
{
    return name == orientationName(Orientation::Standing) ? Orientation::Standing : Orientation::Flat;
}

template <typename Kind>
QVariant idVariant(Id<Kind> id)
{
    return QVariant(qint64{id.value});
}

template <typename Q>
std::optional<double> siOf(const std::optional<Q> &quantity)
{
    return quantity ? std::optional(quantity->si()) : std::nullopt;
}

template <typename Q>
std::optional<Q> quantityFrom(const std::optional<double> &si)
{
    return si ? std::optional(Q::fromSi(*si)) : std::nullopt;
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
    return piece;
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

/// Calls write(item, position) for what is new, changed or moved.
template <typename Item, typename Write>
void forChanged(const std::vector<Item> &now, const std::vector<Item> *before, Write write)
{
    const auto old =
        before != nullptr ? byId(*before) : std::map<std::int64_t, std::pair<const Item *, std::size_t>>{};
    for (std::size_t i = 0; i < now.size(); ++i) {
        const auto found = old.find(now[i].id.value);
        if (found == old.end() || found->second.second != i || !(*found->second.first == now[i]))
            write(now[i], i);
    }
}

template <typename Item>
std::vector<std::int64_t> goneIds(const std::vector<Item> &now, const std::vector<Item> *before)
{
    std::vector<std::int64_t> gone;
    if (before == nullptr)
        return gone;
    const auto kept = byId(now);
    for (const Item &item : *before) {
        if (!kept.contains(item.id.value))
            gone.push_back(item.id.value);
    }
    return gone;
}

} // namespace

std::vector<StudyHeader> Studies::list()
{
    Query query(m_database,
                "SELECT s.id, s.question, s.method, COUNT(p.id), COUNT(p.raw_file_id) FROM study s "
                "LEFT JOIN piece p ON p.study_id = s.id "
                "GROUP BY s.id, s.question, s.method, s.position ORDER BY s.position, s.id");
    query.run();
    std::vector<StudyHeader> headers;
    while (query.next())
        headers.push_back({StudyId{query.integer(0)}, query.text(1), methodFrom(query.text(2)),
                           static_cast<std::size_t>(query.integer(3)),
                           static_cast<std::size_t>(query.integer(4))});
    return headers;
}

std::optional<Study> Studies::load(StudyId id)
{
    Query row(m_database,
              "SELECT question, method, factor_name, factor_unit, reference_id, smallest_difference, "
              "pieces_per_condition, section_shape, gauge_length_m, grip_distance_m, capacity_N, "
              "toe_correction, modulus_from, modulus_to, offset_strain, break_drop FROM study WHERE id = ?");
    row.bind(idVariant(id)).run();
    if (!row.next())
        return std::nullopt;
    Study study;
    study.id = id;
    study.question = row.text(0);
    study.method = methodFrom(row.text(1));
    study.factorName = row.text(2);
    study.factorUnit = row.text(3);
    study.reference = ConditionId{row.integer(4)};
    study.smallestDifference = row.number(5);
    study.piecesPerCondition = static_cast<int>(row.integer(6));
    study.sectionShape = shapeFrom(row.text(7));
    study.rules.gaugeLength = quantityFrom<Length>(row.optionalNumber(8));
    study.rules.gripDistance = quantityFrom<Length>(row.optionalNumber(9));
    study.rules.capacity = quantityFrom<Force>(row.optionalNumber(10));
    study.rules.toeCorrection = row.integer(11) != 0;
    study.rules.lowStrain = row.number(12);
    study.rules.highStrain = row.number(13);
    study.rules.offsetStrain = row.number(14);
    study.rules.breakDrop = row.number(15);

    Query conditions(
        m_database,
        "SELECT id, level, orientation, material FROM study_condition WHERE study_id = ? ORDER BY position");
    conditions.bind(idVariant(id)).run();
    while (conditions.next())
        study.conditions.push_back({ConditionId{conditions.integer(0)}, conditions.text(1),
                                    orientationFrom(conditions.text(2)), conditions.text(3)});

    Query pieces(m_database,
                 "SELECT id, condition_id, code, width_m, thickness_m, diameter_m, area_m2, raw_file_id, "
                 "column_mapping, left_out_reason, left_out_by, left_out_at FROM piece "
                 "WHERE study_id = ? ORDER BY position");
    pieces.bind(idVariant(id)).run();
    while (pieces.next())
        study.pieces.push_back(pieceFrom(pieces));
    loadMarkers(study);
    return study;
}

void Studies::loadMarkers(Study &study)
{
    std::map<std::int64_t, HandMarkers> placed;
    Query query(m_database, "SELECT m.piece_id, m.marker, m.place, m.reason, m.placed_by, m.placed_at "
                            "FROM hand_marker m JOIN piece p ON p.id = m.piece_id WHERE p.study_id = ?");
    query.bind(idVariant(study.id)).run();
    while (query.next()) {
        const std::optional<Marker> marker = markerFrom(query.text(1));
        if (!marker)
            throw StorageFailure(
                fmt::format("piece {}: its marker \"{}\" is not known", query.integer(0), query.text(1)));
        placed[query.integer(0)][*marker] = {query.optionalNumber(2), query.text(3), query.text(4),
                                             query.text(5)};
    }
    for (Piece &piece : study.pieces) {
        if (const auto found = placed.find(piece.id.value); found != placed.end())
            piece.markers = std::move(found->second);
    }
}

void Studies::save(const Study &study, const Study *before)
{
    Query query(
        m_database,
        "INSERT INTO study (id, position, question, method, factor_name, factor_unit, reference_id, "
        "smallest_difference, pieces_per_condition, section_shape, gauge_length_m, grip_distance_m, "
        "capacity_N, toe_correction, modulus_from, modulus_to, offset_strain, break_drop) "
        "VALUES (?, (SELECT COUNT(*) FROM study), ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) "
        "ON CONFLICT (id) DO UPDATE SET question = excluded.question, method = excluded.method, "
        "factor_name = excluded.factor_name, factor_unit = excluded.factor_unit, "
        "reference_id = excluded.reference_id, smallest_difference = excluded.smallest_difference, "
        "pieces_per_condition = excluded.pieces_per_condition, section_shape = excluded.section_shape, "
        "gauge_length_m = excluded.gauge_length_m, grip_distance_m = excluded.grip_distance_m, "
        "capacity_N = excluded.capacity_N, toe_correction = excluded.toe_correction, "
        "modulus_from = excluded.modulus_from, modulus_to = excluded.modulus_to, "
        "offset_strain = excluded.offset_strain, break_drop = excluded.break_drop");
    query.bind(idVariant(study.id))
        .bind(study.question)
        .bind(std::string(methodName(study.method)))
        .bind(study.factorName)
        .bind(study.factorUnit)
        .bind(idVariant(study.reference))
        .bind(QVariant(study.smallestDifference))
        .bind(QVariant(study.piecesPerCondition))
        .bind(std::string(sectionShapeName(study.sectionShape)))
        .bind(siOf(study.rules.gaugeLength))
        .bind(siOf(study.rules.gripDistance))
        .bind(siOf(study.rules.capacity))
        .bind(QVariant(study.rules.toeCorrection ? 1 : 0))
        .bind(QVariant(study.rules.lowStrain))
        .bind(QVariant(study.rules.highStrain))
        .bind(QVariant(study.rules.offsetStrain))
        .bind(QVariant(study.rules.breakDrop))
        .run();
    saveConditions(study, before);
    savePieces(study, before);
    Query removeCondition(m_database, "DELETE FROM study_condition WHERE id = ?");
    for (std::int64_t id : goneIds(study.conditions, before != nullptr ? &before->conditions : nullptr))
        removeCondition.bind(QVariant(qint64{id})).run();
}

void Studies::saveConditions(const Study &study, const Study *before)
{
    Query query(m_database,
                "INSERT INTO study_condition (id, study_id, position, level, orientation, material) "
                "VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET position = excluded.position, "
                "level = excluded.level, orientation = excluded.orientation, material = excluded.material");
    forChanged(study.conditions, before != nullptr ? &before->conditions : nullptr,
               [&](const Condition &condition, std::size_t position) {
                   query.bind(idVariant(condition.id))
                       .bind(idVariant(study.id))
                       .bind(QVariant(static_cast<qint64>(position)))
                       .bind(condition.level)
                       .bind(std::string(orientationName(condition.orientation)))
                       .bind(condition.material)
                       .run();
               });
}

void Studies::savePieces(const Study &study, const Study *before)
{
    const std::vector<Piece> *old = before != nullptr ? &before->pieces : nullptr;
    for (std::int64_t id : goneIds(study.pieces, old)) {
        for (const char *sql :
             {"DELETE FROM hand_marker WHERE piece_id = ?", "DELETE FROM kept_reading WHERE piece_id = ?",
              "DELETE FROM piece WHERE id = ?"})
            Query(m_database, sql).bind(QVariant(qint64{id})).run();
    }
    Query query(
        m_database,
        "INSERT INTO piece (id, study_id, condition_id, position, code, width_m, thickness_m, diameter_m, "
        "area_m2, "
        "raw_file_id, column_mapping, left_out_reason, left_out_by, left_out_at) "
        "VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET "
        "condition_id = excluded.condition_id, position = excluded.position, code = excluded.code, "
        "width_m = excluded.width_m, thickness_m = excluded.thickness_m, diameter_m = excluded.diameter_m, "
        "area_m2 = excluded.area_m2, raw_file_id = excluded.raw_file_id, "
        "column_mapping = excluded.column_mapping, left_out_reason = excluded.left_out_reason, "
        "left_out_by = excluded.left_out_by, left_out_at = excluded.left_out_at");
    const QVariant noText{QMetaType::fromType<QString>()};
    const QVariant noId{QMetaType::fromType<qint64>()};
    forChanged(study.pieces, old, [&](const Piece &piece, std::size_t position) {
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
        query.run();
        saveMarkers(piece);
    });
}

void Studies::saveMarkers(const Piece &piece)
{
    Query(m_database, "DELETE FROM hand_marker WHERE piece_id = ?").bind(idVariant(piece.id)).run();
    for (const auto &[marker, placed] : piece.markers) {
        Query query(m_database, "INSERT INTO hand_marker (piece_id, marker, place, reason, placed_by, "
                                "placed_at) VALUES (?, ?, ?, ?, ?, ?)");
        query.bind(idVariant(piece.id))
            .bind(std::string(markerName(marker)))
            .bind(placed.at)
            .bind(placed.reason)
            .bind(placed.who)
            .bind(placed.when)
            .run();
    }
}

void Studies::remove(StudyId id)
{
    for (const char *sql :
         {"DELETE FROM hand_marker WHERE piece_id IN (SELECT id FROM piece WHERE study_id = ?)",
          "DELETE FROM kept_reading WHERE piece_id IN (SELECT id FROM piece WHERE study_id = ?)",
          "DELETE FROM piece WHERE study_id = ?", "DELETE FROM study_condition WHERE study_id = ?",
          "DELETE FROM study WHERE id = ?"})
        Query(m_database, sql).bind(idVariant(id)).run();
}

} // namespace inchpeg
