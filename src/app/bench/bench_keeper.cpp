// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_keeper.h"

#include "core/model/study_edit.h"

#include <QPointer>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

BenchKeeper::BenchKeeper(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
    connect(&session, &ProjectSession::projectChanged, this, [this] { m_pending = 0; });
}

void BenchKeeper::keepRecord(StudyId study, const CutOffRecord &record, const QString &name)
{
    const Result<std::string> bytes = bytesOf(record);
    if (!bytes) {
        emit told(QString::fromStdString(bytes.error().message));
        emit notKept(record);
        return;
    }
    start({study,
           record.piece,
           name.toStdString(),
           std::make_shared<const std::string>(*bytes),
           record,
           tr("record on the bench"),
           {}});
}

bool BenchKeeper::keepTyped(PieceId id, const std::vector<TypedRow> &rows, const std::string &gauge,
                            const QString &step, Change change)
{
    const Piece *piece = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), id);
    if (piece == nullptr || reductionOf(piece->test) == nullptr)
        return false;
    const Reduction &reduction = *reductionOf(piece->test);
    std::vector<Unit> units;
    for (const TypedColumn &column : typedColumns(reduction))
        units.push_back(m_session.notation().unitOf(column.dimension.value_or(Dimension::Number)));
    const TypedRecord record{piece->code, m_session.who().toStdString(), gauge, rows};
    const Result<std::string> bytes = typedRecordText(record, reduction, units);
    if (!m_session.tell(bytes ? ok() : Status(bytes.error())))
        return false;
    start({m_session.study()->id,
           id,
           fmt::format("typed {} {}.csv", piece->code, m_session.today()),
           std::make_shared<const std::string>(*bytes),
           {},
           step,
           std::move(change)});
    return isBusy();
}

void BenchKeeper::start(Order order)
{
    std::vector<RawFileToKeep> files{{{}, order.name, {}, order.bytes}};
    const bool isTaken = m_session.tell(
        m_session.keepRawFiles(std::move(files), [self = QPointer(this), order](const KeptRawFiles &stored) {
            if (self != nullptr)
                self->link(order, stored);
        }));
    m_pending += isTaken ? 1 : 0;
    if (!isTaken && order.record)
        emit notKept(*order.record);
}

/// Wherever the person has gone meanwhile: the rack stays as it is.
void BenchKeeper::link(const Order &order, const KeptRawFiles &stored)
{
    // Still at hand while the study is changed: what follows from that must not take the next piece.
    const bool isLinked =
        m_session.tell(stored.status) && !stored.ids.empty() &&
        m_session.tell(m_session.editStudy(order.study, order.step, [&](Study &changed) -> Status {
            Piece *recorded = findPiece(changed, order.piece);
            if (recorded == nullptr)
                return invalidArgument("the piece is no longer there");
            setRecording(*recorded,
                         Recording{stored.ids.front(), {}, m_session.rigToday(changed, recorded->test)});
            if (order.change)
                order.change(*recorded);
            return ok();
        }));
    m_pending = std::max(0, m_pending - 1);
    if (isLinked && order.record)
        forget(*order.record);
    else if (order.record)
        emit notKept(*order.record);
    emit kept(order.piece, isLinked);
}

} // namespace inchpeg::app
